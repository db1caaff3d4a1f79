import type { BuildView, ReadingRow, Round } from '@zero-lash/contract/builds';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { mmFromTenths } from '@zero-lash/core/length';
import { conditionCautions } from '@zero-lash/core/measuring';
import type { Knex } from 'knex';
import { findEngine } from '../engines/store.ts';
import { Refusal } from '../plugins/errors.ts';
import { readRechecks } from '../rechecks/store.ts';
import { findRevision } from '../sheets/store.ts';

const mmOrNull = (tenths: number | null) => (tenths === null ? null : mmFromTenths(tenths));

/** Reads everything the bench sees of a build. */
export async function viewBuild(db: Knex, id: string): Promise<BuildView> {
  const build = await db('builds as b')
    .join('people as p', 'p.id', 'b.opened_by')
    .where('b.id', id)
    .first(
      'b.id',
      'b.engine_id',
      'b.revision_id',
      'b.number',
      'b.stage',
      'b.complaint',
      'b.aim',
      'b.version',
      'b.opened_at as openedAt',
      'p.name as openedBy',
      'b.closed_at as closedAt',
    );
  if (!build) throw new Refusal('not_found', { detail: 'There is no such build.' });
  const { engine_id: engineId, revision_id: revisionId, ...fields } = build;
  const by = (table: string, alias: string) =>
    db(`${table} as ${alias}`).join('people as p', 'p.id', `${alias}.by`).where(`${alias}.build_id`, id);
  const sheet = await findRevision(db, revisionId);
  const signOff = await by('sign_offs', 'o').first('p.name as by', 'o.at', 'o.usage', 'o.statement');
  return {
    ...fields,
    engine: await findEngine(db, engineId),
    sheet,
    ticks: await by('stage_ticks', 't').select('t.stage', 't.check_key as check', 'p.name as by', 't.at'),
    notes: await by('stage_notes', 'n')
      .orderBy('n.at')
      .select('n.id', 'n.stage', 'n.text', 'p.name as by', 'n.at'),
    rounds: await readRounds(db, id, sheet),
    settings: await readSettings(db, id),
    signOff: signOff ?? null,
    rechecks: await readRechecks(db, { build_id: id }),
  };
}

async function readSettings(db: Knex, buildId: string): Promise<BuildView['settings']> {
  const rows = await db('settings as s')
    .join('people as p', 'p.id', 's.by')
    .where('s.build_id', buildId)
    .where('s.superseded', false)
    .select(
      's.id',
      's.point',
      's.kind',
      's.degrees',
      's.installed',
      's.fitted',
      's.mark',
      's.note',
      'p.name as by',
      's.at',
    );
  return rows.map((row) => ({
    ...row,
    installed: mmOrNull(row.installed),
    fitted: mmOrNull(row.fitted),
  }));
}

async function readRounds(db: Knex, buildId: string, sheet: SheetRevision): Promise<Round[]> {
  const rounds = await db('rounds as r')
    .join('people as p', 'p.id', 'r.opened_by')
    .where('r.build_id', buildId)
    .orderBy('r.opened_at')
    .select(
      'r.id',
      'r.kind',
      'r.number',
      'r.recheck_id as recheckId',
      'r.opened_at as openedAt',
      'p.name as openedBy',
      'r.closed_at as closedAt',
      'r.engine_temp_c as engineTempC',
      'r.hours_since_run as hoursSinceRun',
      'r.condition',
      'r.turn_school as school',
      'r.turn_at as at',
      'r.turn_done as done',
    );
  const readings = await readReadings(db, (query) =>
    query.whereIn(
      'g.round_id',
      rounds.map(({ id }) => id),
    ),
  );
  const past = await readConditions(
    db,
    rounds.map(({ id }) => id),
  );
  return rounds.map(({ school, at, done, ...round }) => ({
    ...round,
    pastConditions: past
      .filter(({ roundId }) => roundId === round.id)
      .map(({ roundId: _, ...said }) => ({ ...said, cautions: conditionCautions(sheet, said) })),
    instruments: [
      ...new Set(
        readings
          .filter(({ roundId, instrument }) => roundId === round.id && instrument !== null)
          .map(({ instrument }) => instrument!),
      ),
    ],
    turning: { school: school ?? 'fewest', at, done },
    readings: readings.filter(({ roundId }) => roundId === round.id),
  }));
}

/** What was said of rounds' conditions, oldest first. */
async function readConditions(db: Knex, roundIds: readonly string[]) {
  return db('round_conditions as c')
    .join('people as p', 'p.id', 'c.by')
    .whereIn('c.round_id', roundIds)
    .orderBy('c.at')
    .select(
      'c.round_id as roundId',
      'c.engine_temp_c as engineTempC',
      'c.hours_since_run as hoursSinceRun',
      'c.condition',
      'p.name as by',
      'c.at',
    );
}

/** Reads the reading that stands at each point, or all there were; `narrow` says of which rounds. */
export async function readReadings(
  db: Knex,
  narrow: (query: Knex.QueryBuilder) => void,
  which: 'standing' | 'all' = 'standing',
): Promise<ReadingRow[]> {
  const query = db('readings as g')
    .join('people as p', 'p.id', 'g.by')
    .leftJoin('instruments as i', 'i.id', 'g.instrument_id')
    .leftJoin('readings as f', 'f.id', 'g.supersedes')
    .leftJoin('people as fp', 'fp.id', 'f.by')
    .select(
      'g.id',
      'g.round_id as roundId',
      'g.point',
      'g.reading',
      'g.as_typed as asTyped',
      'g.lo',
      'g.hi',
      'g.verdict',
      'g.on_limit as onLimit',
      'g.doubt_kept as doubtKept',
      'g.crank_angle as crankAngle',
      'g.off_base as offBase',
      'i.name as instrument',
      'g.taken_at as takenAt',
      'g.blind',
      db.raw(`case when g.blind and f.id is not null
        then json_build_object('by', fp.name, 'lo', f.lo, 'hi', f.hi) end as "firstLook"`),
      'p.name as by',
      'g.at',
      'g.supersedes',
      'g.reason',
      'g.superseded',
      db.raw(`(select count(*)::int from readings o
        where o.round_id = g.round_id and o.point = g.point and o.id <> g.id and o.superseded) as earlier`),
    );
  if (which === 'standing') query.where('g.superseded', false);
  narrow(query);
  const rows = await query;
  return rows.map(({ firstLook, ...row }) => ({
    ...row,
    lo: mmFromTenths(row.lo),
    hi: mmOrNull(row.hi),
    firstLook: firstLook && { ...firstLook, lo: mmFromTenths(firstLook.lo), hi: mmOrNull(firstLook.hi) },
  }));
}
