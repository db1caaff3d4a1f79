import type { Morning } from '@zero-lash/contract/morning';
import {
  checkSaying,
  CLOSING,
  obstaclesToSignOff,
  RUNNING,
  stageOf,
  statusOf,
  type StageKey,
} from '@zero-lash/core/builds';
import {
  CHANGE_WORDS,
  outcomeInWords,
  type RecheckChange,
  type RecheckOutcome,
} from '@zero-lash/core/rechecks';
import { counted } from '@zero-lash/core/length';
import type { Knex } from 'knex';
import { readWhole } from '../builds/readWhole.ts';
import { clock, shopZone } from '../clock.ts';
import { readTimeQuestions } from '../questions/store.ts';
import { countUnsent } from '../reminders/send.ts';

const COLD = checkSaying('cold');
const SHOWN = 12;
const CHANGES_SHOWN = 40;
/** A person who never looked is told of a week. */
const FIRST_DAYS = 7;

/** What waits, and what changed since somebody last said that they had looked. */
export async function readMorning(db: Knex, personId: string): Promise<Morning> {
  const { looked_at: since } = (await db('people').where({ id: personId }).first('looked_at')) as {
    looked_at: Date | null;
  };
  const from = since ?? new Date(clock.now().getTime() - FIRST_DAYS * 86_400_000);
  // one after another: it is read inside a transaction too, which has one connection
  const waits = await readWaits(db);
  const changed = await readChanged(db, personId, from);
  const questions = await db('meter_lines')
    .where({ state: 'asked' })
    .count<{ count: string }[]>('id as count');
  const unsent = await countUnsent(db);
  return {
    ...{ waits, changed, unsent, questions: Number(questions[0]!.count) },
    since: since?.toISOString() ?? null,
  };
}

/** A person has looked: what changed until now is not told again. */
export async function markLooked(db: Knex, personId: string): Promise<void> {
  await db('people').where({ id: personId }).update({ looked_at: db.fn.now() });
}

/** Builds that stand still for a lead, for parts that are on order, for a cold engine, or for a second look. */
async function readWaits(db: Knex): Promise<Morning['waits']> {
  const closed = stageOf(CLOSING).checks.map(({ key }) => key);
  const { rows } = await db.raw(
    `with open as (
       select b.id, b.stage, e.name from builds b join engines e on e.id = b.engine_id
        where b.closed_at is null and b.stage <> :running
     )
     select * from (
       select 'lead' as for, o.id as "buildId", o.name as engine, 'nothing stands against signing it' as text, 1 as place
         from open o where o.stage = :closing and (select count(*) from stage_ticks t
          where t.build_id = o.id and t.stage = :closing and t.done and t.check_key = any(:closed)) = :checks
       union all
       select 'parts', o.id, o.name, 'ordered: ' || coalesce(nullif(p.note, ''), p.system), 2
         from open o join piece_orders p on p.build_id = o.id and p.closed_at is null
       union all
       select 'second-look', o.id, o.name, string_agg(g.point, ', ' order by g.point), 3
         from open o join rounds r on r.build_id = o.id and r.closed_at is null
           join readings g on g.round_id = r.id and not g.superseded and g.verdict = 'conflict'
        group by o.id, o.name
       union all
       select 'cold', o.id, o.name, 'not said to be cold yet', 4
         from open o where o.stage = :taken and not exists (select 1 from stage_ticks t
          where t.build_id = o.id and t.stage = :taken and t.check_key = :cold and t.done)
     ) w order by place, engine limit ${SHOWN}`,
    {
      ...{ running: RUNNING, closing: CLOSING, closed, checks: closed.length },
      ...{ taken: COLD.stage, cold: COLD.check },
    },
  );
  const ready: Morning['waits'] = [];
  for (const { for: what, buildId, engine, text } of rows as WaitRow[])
    // what is ready to be signed is what signing itself would take
    if (what !== 'lead' || obstaclesToSignOff(statusOf(await readWhole(db, buildId))).length === 0)
      ready.push({ for: what, path: `/builds/${buildId}`, engine, text });
  const asked = await readTimeQuestions(db);
  return [
    ...ready,
    ...asked.map(({ buildId, engineId, engine, said, by }) => ({
      ...{ for: 'device' as const, engine },
      path: buildId ? `/builds/${buildId}` : `/engines/${engineId}`,
      text: `${said}, by ${by}: when was it?`,
    })),
  ];
}

interface WaitRow extends Pick<Morning['waits'][number], 'for' | 'engine' | 'text'> {
  readonly buildId: string;
}

interface Changed {
  readonly at: Date;
  readonly by: string;
  readonly engine: string;
  readonly what: 'moved' | 'signed' | 'recheck' | 'change' | 'sheet' | 'read' | 'meter';
  readonly detail: string;
  readonly id: string;
}

/** What others did since then, newest first. */
async function readChanged(db: Knex, personId: string, since: Date): Promise<Morning['changed']> {
  const { rows } = await db.raw(
    // of one kind of news of one build, of one person on one day, the newest says it all
    `select * from (select distinct on (c.what, c.id, c.by, c.day) c.at, p.name as by, c.engine, c.what, c.detail, c.id from (select news.*, (news.at at time zone :zone)::date as day from (
       select m.at, m.by, e.name as engine, 'moved' as what, m.to_stage as detail, b.id
         from stage_moves m join builds b on b.id = m.build_id join engines e on e.id = b.engine_id
        where m.at > :since and m.to_stage <> :running
       union all
       select s.at, s.by, e.name, 'signed', '', b.id
         from sign_offs s join builds b on b.id = s.build_id join engines e on e.id = b.engine_id where s.at > :since
       union all
       select r.done_at, r.done_by, e.name, 'recheck', r.outcome || coalesce(':' || jsonb_array_length(r.points), ''), r.build_id
         from rechecks r join engines e on e.id = r.engine_id where r.status = 'done' and r.done_at > :since
       union all
       select h.at, h.by, e.name, 'change', case h.kind when 'held' then 'on-hold' else h.kind end || coalesce(': ' || nullif(h.why, ''), ''), r.build_id
         from recheck_changes h join rechecks r on r.id = h.recheck_id join engines e on e.id = r.engine_id
        where h.at > :since
       union all
       select v.published_at, v.checked_by, s.maker || ' ' || s.name, 'sheet', v.number::text, s.id
         from sheet_revisions v join sheets s on s.id = v.sheet_id where v.published_at > :since
       union all
       select max(g.at), g.by, e.name, 'read', count(*)::text, b.id
         from readings g join rounds q on q.id = g.round_id join builds b on b.id = q.build_id join engines e on e.id = b.engine_id
        where g.at > :since group by g.by, e.name, b.id, (g.at at time zone :zone)::date
       union all
       select u.read_at, u.by, e.name, 'meter', u.usage::float8 || ' ' || e.usage_unit, e.id
         from usages u join engines e on e.id = u.engine_id
        where u.read_at > :since and u.source <> 'feed' and u.struck_at is null
     ) news) c join people p on p.id = c.by where c.by <> :me
      order by c.what, c.id, c.by, c.day, c.at desc) n
      order by at desc limit ${CHANGES_SHOWN}`,
    { since, me: personId, running: RUNNING, zone: await shopZone(db) },
  );
  return (rows as Changed[]).map(({ at, by, engine, what, detail, id }) => ({
    ...{ at: at.toISOString(), by, engine, text: textOf(what, detail) },
    path: `/${PLACE_OF[what] ?? 'builds'}/${id}`,
  }));
}

/** Where news is of something else than a build. */
const PLACE_OF: Partial<Record<Changed['what'], string>> = { sheet: 'sheets', meter: 'engines' };

/** What was done about a recheck, with why: as the row has both, the kind first. */
function changeInWords(detail: string): string {
  const [, kind, why] = /^([a-z-]+)(?:: (.*))?$/s.exec(detail)!;
  return CHANGE_WORDS[kind as RecheckChange] + (why === undefined ? '' : `: ${why}`);
}

function textOf(what: Changed['what'], detail: string): string {
  switch (what) {
    case 'moved':
      return `is at ${stageOf(detail as StageKey).title}`;
    case 'signed':
      return 'is signed off';
    case 'recheck': {
      // of a short look with how many points it took
      const [outcome, points] = detail.split(':');
      return `rechecked: ${outcomeInWords(outcome as RecheckOutcome, points === undefined ? null : Number(points))}`;
    }
    case 'change':
      return `its recheck was ${changeInWords(detail)}`;
    case 'sheet':
      return `revision ${detail} was published`;
    case 'read':
      return `${counted(Number(detail), 'gap')} measured`;
    case 'meter':
      return `meter read: ${detail}`;
  }
}
