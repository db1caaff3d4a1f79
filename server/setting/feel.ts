import type { Feel, LockFeel } from '@zero-lash/contract/setting';
import { mmFromTenths } from '@zero-lash/core/length';
import { adjusterAt, feelSpread, lockShift } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { pointAt } from '../sheets/limitsAt.ts';
import { findRevision } from '../sheets/read.ts';

/** Looks and pairs that are reckoned with: a hand changes over the years. */
const LATELY = 200;

/** What the hand of a person adds: how well it feels the same gap again, and what locking does to what it set. */
export async function readFeel(db: Knex, personId: string): Promise<Feel> {
  return { ...(await readSpread(db, personId)), locks: await readLocks(db, personId) };
}

type Ends = Record<'firstLo' | 'firstHi' | 'lo' | 'hi', number>;
const bounded = (lo: number, hi: number) => ({ lo: mmFromTenths(lo), hi: mmFromTenths(hi) });
type Pair = Readonly<Record<'before' | 'after', ReturnType<typeof bounded>>>;

/**
 * A person's own spread of feel, from the points they looked at a second time without seeing what the first had found, newest
 * looks first; and how far inside a band that keeps a plan of theirs.
 */
async function readSpread(db: Knex, personId: string): Promise<Omit<Feel, 'locks'>> {
  const rows = (await db('readings as g')
    .join('readings as f', 'f.id', 'g.first_look')
    .where({ 'g.by': personId, 'g.blind': true })
    .whereNotNull('g.hi')
    .whereNotNull('f.hi')
    .orderBy('g.taken_at', 'desc')
    .limit(LATELY)
    .select({ firstLo: 'f.lo', firstHi: 'f.hi', lo: 'g.lo', hi: 'g.hi' })) as Ends[];
  return feelSpread({
    looks: rows.map(({ firstLo, firstHi, lo, hi }) => ({
      first: bounded(firstLo, firstHi),
      second: bounded(lo, hi),
    })),
  });
}

/**
 * What tightening the lock nut does to a person's gaps, by the pattern of adjuster: from the readings they took before it, each with
 * the next one of theirs at the same point in the same round. One between which the point was turned again is no pair.
 */
async function readLocks(db: Knex, personId: string): Promise<LockFeel[]> {
  const { rows } = (await db.raw(
    `select b.lo as "firstLo", b.hi as "firstHi", a.lo, a.hi, b.point, b.revision_id as "revisionId"
       from readings b
       join rounds r on r.id = b.round_id
       cross join lateral (
         select n.lo, n.hi, n.taken_at, n.before_lock from readings n
          where n.round_id = b.round_id and n.point = b.point and n.by = b.by and n.taken_at > b.taken_at
          order by n.taken_at limit 1) a
      where b.by = ? and b.before_lock and not a.before_lock and b.hi is not null and a.hi is not null
        and b.lo <= b.hi and a.lo <= a.hi
        and not exists (
          select 1 from settings s
           where s.build_id = r.build_id and s.point = b.point and s.at > b.taken_at and s.at <= a.taken_at)
      order by b.taken_at desc limit ?`,
    [personId, LATELY],
  )) as { rows: (Ends & { point: string; revisionId: string })[] };
  const sheets = new Map(
    await Promise.all(
      [...new Set(rows.map(({ revisionId }) => revisionId))].map(
        async (id) => [id, await findRevision(db, id)] as const,
      ),
    ),
  );
  const byAdjuster = new Map<
    string,
    { said: Pick<LockFeel, 'means' | 'pitch' | 'locking'>; pairs: Pair[] }
  >();
  for (const { point, revisionId, firstLo, firstHi, lo, hi } of rows) {
    const sheet = sheets.get(revisionId)!;
    const { role } = pointAt(sheet, point);
    const means = meansFor(sheet.pattern, role);
    const adjuster = adjusterAt(sheet.pattern, role);
    if (adjuster === null || (means.kind !== 'screw' && means.kind !== 'pivot-nut')) continue;
    const { kind, locking } = means;
    // an adjuster of no known pitch has no name of its own
    const pitch = means.pitch!;
    const known = byAdjuster.get(adjuster) ?? { said: { means: kind, pitch, locking }, pairs: [] };
    known.pairs.push({ before: bounded(firstLo, firstHi), after: bounded(lo, hi) });
    byAdjuster.set(adjuster, known);
  }
  return [...byAdjuster].map(([adjuster, { said, pairs }]) => ({
    adjuster,
    ...said,
    ...lockShift({ pairs }),
  }));
}
