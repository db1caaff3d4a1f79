import { randomUUID } from 'node:crypto';
import { tenthsFromMm } from '@zero-lash/core/length';
import { judge } from '@zero-lash/core/measuring';
import type { WearLineBody } from '@zero-lash/contract/wear';
import type { Knex } from 'knex';

const MS_PER_DAY = 86_400_000;

/** The engine whose plan wants a swap of three, two bought, and one that no size made brings in; mm in at each point. */
export const PLANNED = 'Railcar 4, rear engine';
export const PLANNED_GAPS: Readonly<Record<string, number>> = {
  ...{ '1Ia': 0.155, '1Ib': 0.145, '2Ia': 0.155, '2Ib': 0.145, '3Ia': 0.155, '3Ib': 0.145, '4Ia': 0.155 },
  ...{ '4Ib': 0.305, '1Ea': 0.355, '1Eb': 0.355, '2Ea': 0.105, '2Eb': 0.245, '3Ea': 0.305, '3Eb': 0.255 },
  ...{ '4Ea': 0.055, '4Eb': 0.245 },
};
const PLANNED_PIECES: Readonly<Record<string, number>> = {
  ...{ '1Ia': 2.5, '1Ib': 2.55, '2Ia': 2.45, '2Ib': 2.5, '3Ia': 2.6, '3Ib': 2.55, '4Ia': 2.5, '4Ib': 3 },
  ...{ '1Ea': 2.95, '1Eb': 3, '2Ea': 3.05, '2Eb': 2.6, '3Ea': 2.9, '3Eb': 2.65, '4Ea': 2.05, '4Eb': 2.7 },
};

/** The engine on which one hand set, locked and measured again, point by point. */
const LOCKED = 'Frost fan 9, River Terrace';
/** How much tightening the lock nut opened each of its gaps; mm. */
const SHIFTS = [0.021, 0.018, 0.024, 0.019, 0.022, 0.017, 0.023, 0.02];
/** The engine that a second person looked over without seeing what the first found, and how far off they felt; mm. */
const LOOKED_OVER = 'Railcar 2, rear engine';
const OFF_BY = [0, 0.01, 0, -0.01, 0, 0.01, 0, 0, -0.01, 0.01, 0, 0];

interface Cast {
  readonly bench: string;
  readonly lead: string;
  readonly now: Date;
}

/** Tells what was set, locked and looked at a second time in the demo world. */
export async function loadAtSet(db: Knex, cast: Cast): Promise<void> {
  await tellPieces(db, cast);
  await tellLocking(db, cast);
  await tellSecondLooks(db, cast);
}

async function buildOf(db: Knex, engine: string): Promise<{ id: string; revision: string }> {
  const build = await db('builds as b')
    .join('engines as e', 'e.id', 'b.engine_id')
    .where('e.name', engine)
    .orderBy('b.number', 'desc')
    .first('b.id', 'b.revision_id as revision');
  return build as { id: string; revision: string };
}

async function tellPieces(db: Knex, { bench, now }: Cast): Promise<void> {
  const { id } = await buildOf(db, PLANNED);
  const lines = Object.entries(PLANNED_PIECES).map(([place, mm]): WearLineBody => ({
    ...{ kind: 'figure', item: 'piece-in', place, field: 'value', values: [mm], asTyped: mm.toFixed(2) },
    ...{ how: 'measured', set: 'found', doubtKept: false },
  }));
  await db('build_entries').insert({
    id: randomUUID(),
    build_id: id,
    room: 'wear',
    lines: JSON.stringify(lines),
    by: bench,
    at: new Date(now.getTime() - 2 * MS_PER_DAY),
  });
}

/** Each point of an engine measured by an indicator before its lock nut was tightened, and after. */
async function tellLocking(db: Knex, { lead, now }: Cast): Promise<void> {
  const { id, revision } = await buildOf(db, LOCKED);
  const round = (await db('rounds').where({ build_id: id, kind: 'as-set' }).first('id', 'opened_at'))!;
  const limits = (await db('sheet_limits').where({ revision_id: revision })) as {
    role: string;
    min_tenths: number;
    max_tenths: number;
  }[];
  const points = ['1I', '1E', '2I', '2E', '3I', '3E', '4I', '4E'];
  const start = Math.max(now.getTime() - MS_PER_DAY / 2, (round.opened_at as Date).getTime() + 60_000);
  for (const [index, point] of points.entries()) {
    const band = limits.find(({ role }) => role === (point.endsWith('E') ? 'exhaust' : 'intake'))!;
    const after = (band.min_tenths + band.max_tenths) / 2 / 10_000;
    const value = (mm: number) => Math.round(mm * 1000) / 1000;
    const taken = [
      { mm: value(after - SHIFTS[index]!), beforeLock: true },
      { mm: value(after), beforeLock: false },
    ];
    const ids = [randomUUID(), randomUUID()];
    for (const [step, { mm, beforeLock }] of taken.entries()) {
      const lo = tenthsFromMm(mm) - 50;
      const hi = lo + 100;
      const { min_tenths: min, max_tenths: max } = band;
      const { verdict, onLimit } = judge({ lo, hi }, { min, max });
      const at = new Date(start + (index * 2 + step) * 60_000);
      await db('readings').insert({
        ...{ id: ids[step], round_id: round.id, revision_id: revision, point, as_typed: mm.toFixed(3) },
        reading: JSON.stringify({ kind: 'value', value: mm, uncertainty: 0.005 }),
        ...{ lo, hi, min_tenths: min, max_tenths: max, verdict, on_limit: onLimit },
        ...{ by: lead, at, taken_at: at, before_lock: beforeLock },
        ...{ superseded: step === 0, supersedes: step === 0 ? null : ids[0] },
        reason: step === 0 ? '' : 'measured again',
      });
    }
  }
}

/** The first points of an engine's as-found round, felt again by a second person who saw nothing of the first. */
async function tellSecondLooks(db: Knex, { lead }: Cast): Promise<void> {
  const { id } = await buildOf(db, LOOKED_OVER);
  const round = (await db('rounds').where({ build_id: id, kind: 'as-found' }).first('id'))!;
  const first = await db('readings')
    .where({ round_id: round.id, superseded: false })
    .orderBy('taken_at')
    .limit(OFF_BY.length);
  for (const [index, row] of first.entries()) {
    const lo = row.lo + tenthsFromMm(OFF_BY[index]!);
    const hi = row.hi! + tenthsFromMm(OFF_BY[index]!);
    const { verdict, onLimit } = judge({ lo, hi }, { min: row.min_tenths!, max: row.max_tenths! });
    const at = new Date((row.taken_at as Date).getTime() + 2 * 3_600_000);
    await db('readings').where({ id: row.id }).update({ superseded: true });
    await db('readings').insert({
      ...row,
      ...{ id: randomUUID(), lo, hi, verdict, on_limit: onLimit, by: lead, at, taken_at: at },
      reading: JSON.stringify({ kind: 'bracket', go: lo / 10_000, noGo: hi / 10_000 }),
      as_typed: `${(lo / 10_000).toFixed(2)} ${(hi / 10_000).toFixed(2)}`,
      ...{ supersedes: row.id, superseded: false, blind: true, first_look: row.id },
      reason: 'second look, without seeing the first',
    });
  }
}
