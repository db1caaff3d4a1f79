import type { Today } from '@zero-lash/contract/today';
import type { UsageUnit } from '@zero-lash/contract/values';
import { STAGE_KEYS, type StageKey, RUNNING } from '@zero-lash/core/builds';
import { dueState, type Day, type RecheckOutcome } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { KeepPart } from '../answerCache.ts';
import { UNREAD_SQL } from '../sheets/read.ts';
import { NEARNESS_SQL, nearnessOn, RECHECK_DAY_SQL } from '../rechecks/nearness.ts';

const BUILDS_A_STAGE = 10;
const RECHECKS_SHOWN = 16;
const DRAFTS_SHOWN = 12;

/**
 * Reads what is on the bench and what is due; lists are cut, counts are whole. How far each build is changes with every reading, and what
 * is due does not: that is a part of its own.
 */
export async function readToday(db: Knex, day: Day, part: KeepPart): Promise<Today> {
  const [bench, due] = await Promise.all([readBench(db), part('due', () => readDue(db, day))]);
  return shape(day, { ...bench, ...due });
}

type BenchRow = Pick<TodayRow, 'bench' | 'drafts'>;
type DueRow = Omit<TodayRow, keyof BenchRow>;

/** What is on the bench, each build with how much of it is measured, and the sheets that are to be read. */
async function readBench(db: Knex): Promise<BenchRow> {
  const { rows } = await db.raw(
    `
    with bench as (
      select b.id, b.engine_id, b.stage, b.job, b.complaint, b.stage_since, e.name, e.owner,
        count(*) over (partition by b.stage)::int as whole,
        row_number() over (partition by b.stage order by b.stage_since desc) as place
      from builds b join engines e on e.id = b.engine_id
      where b.closed_at is null and b.stage <> :running
    )
    select
      (select coalesce(json_agg(json_build_object('id', id, 'engineId', engine_id, 'engine', name,
          'owner', owner, 'complaint', complaint, 'job', job, 'since', stage_since, 'stage', stage, 'whole', whole,
          'measured', (select json_build_object('done', (select count(*) from readings g where g.round_id = q.id and not g.superseded),
              'of', (select count(*) from lash_points l where l.revision_id = q.revision_id))
            from rounds q where q.build_id = bench.id and q.closed_at is null order by q.opened_at desc limit 1))
          order by place), '[]')
        from bench where place <= :builds) as bench,
      (select coalesce(json_agg(json_build_object('sheetId', d.sheet_id, 'name', s.maker || ' ' || s.name,
          'number', d.number, 'published', d.status = 'published', 'writers', (select coalesce(json_agg(w.name), '[]') from people w where w.id = any(d.writers)))
          order by s.name), '[]')
        from (select * from sheet_revisions r where status = 'draft' or ${UNREAD_SQL} order by number limit :drafts) d
          join sheets s on s.id = d.sheet_id) as drafts`,
    { running: RUNNING, builds: BUILDS_A_STAGE, drafts: DRAFTS_SHOWN },
  );
  return (rows as BenchRow[])[0]!;
}

/** What is due, and how many engines run without a build on the bench. */
async function readDue(db: Knex, day: Day): Promise<DueRow> {
  const { rows } = await db.raw(
    `
    with planned as (
      select r.id, r.build_id, r.engine_id, r.sequence, r.planned_usage, r.planned_cycles, r.after_outcome, r.due_usage,
        r.due_date, r.due_cycles, r.held as "onHold", r.late_round is not null as late,
        e.name, e.owner, e.usage, e.running, e.heat_cycles, e.usage_unit,
        r.bench_day, r.expected_day, ${RECHECK_DAY_SQL} as on_day, ${NEARNESS_SQL} as nearness
      from rechecks r join engines e on e.id = r.engine_id
      where r.status = 'planned' and e.put_away_at is null
    )
    select
      (select count(*)::int from builds b join engines e on e.id = b.engine_id
        where b.closed_at is null and b.stage = :running and e.put_away_at is null) as running,
      (select json_build_object('not-held', count(*) filter (where nearness = -1),
          'overdue', count(*) filter (where nearness = 0),
          'due', count(*) filter (where nearness = 1), 'coming', count(*) filter (where nearness = 2),
          'waiting', count(*) filter (where nearness = 3))
        from planned) as counts,
      (select coalesce(json_agg(p), '[]') from (
        select * from planned order by nearness, on_day nulls last, name, id limit :rechecks) p) as rechecks`,
    { ...nearnessOn(day), running: RUNNING, rechecks: RECHECKS_SHOWN },
  );
  return (rows as DueRow[])[0]!;
}

interface TodayRow {
  running: number;
  drafts: Today['drafts'];
  bench: (Today['stages'][number]['builds'][number] & { stage: StageKey; whole: number })[];
  counts: Today['rechecks']['counts'];
  rechecks: {
    id: string;
    build_id: string;
    engine_id: string;
    sequence: number;
    planned_usage: number;
    planned_cycles: number;
    due_cycles: number | null;
    heat_cycles: number;
    onHold: boolean;
    late: boolean;
    after_outcome: RecheckOutcome | null;
    due_usage: number | null;
    due_date: Day | null;
    bench_day: Day | null;
    expected_day: Day | null;
    name: string;
    owner: string;
    usage: number;
    running: number;
    usage_unit: UsageUnit;
  }[];
}

function shape(day: Day, row: TodayRow): Today {
  return {
    day,
    stages: STAGE_KEYS.map((stage) => {
      const builds = row.bench.filter((build) => build.stage === stage);
      return {
        stage,
        count: stage === RUNNING ? row.running : (builds[0]?.whole ?? 0),
        builds: builds.map(({ stage: _, whole: __, ...build }) => build),
      };
    }),
    drafts: row.drafts,
    rechecks: {
      counts: row.counts,
      list: row.rechecks.map((recheck) => {
        const due = {
          ...{ dueUsage: recheck.due_usage, dueDate: recheck.due_date, dueCycles: recheck.due_cycles },
          ...{ running: recheck.running, heatCycles: recheck.heat_cycles },
        };
        return {
          id: recheck.id,
          buildId: recheck.build_id,
          engineId: recheck.engine_id,
          engine: recheck.name,
          owner: recheck.owner,
          usageUnit: recheck.usage_unit,
          ...due,
          benchDay: recheck.bench_day,
          expectedDay: recheck.expected_day,
          state: dueState(
            due,
            { usage: recheck.planned_usage, cycles: recheck.planned_cycles },
            { day, usage: recheck.running, cycles: recheck.heat_cycles },
            recheck.after_outcome,
            recheck.onHold,
          ),
          sequence: recheck.sequence,
          late: recheck.late,
        };
      }),
    },
  };
}
