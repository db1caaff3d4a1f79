import type { Feel } from '@zero-lash/contract/setting';
import { mmFromTenths } from '@zero-lash/core/length';
import { feelSpread } from '@zero-lash/core/setting';
import type { Knex } from 'knex';

/** Looks that are reckoned with: a hand changes over the years. */
const LOOKS = 200;

/**
 * A person's own spread of feel, from the points they looked at a second time without seeing what the first had found, newest
 * looks first; and how far inside a band that keeps a plan of theirs.
 */
export async function readFeel(db: Knex, personId: string): Promise<Feel> {
  const rows = (await db('readings as g')
    .join('readings as f', 'f.id', 'g.first_look')
    .where({ 'g.by': personId, 'g.blind': true })
    .whereNotNull('g.hi')
    .whereNotNull('f.hi')
    .orderBy('g.taken_at', 'desc')
    .limit(LOOKS)
    .select({ firstLo: 'f.lo', firstHi: 'f.hi', lo: 'g.lo', hi: 'g.hi' })) as Record<
    'firstLo' | 'firstHi' | 'lo' | 'hi',
    number
  >[];
  return feelSpread({
    looks: rows.map(({ firstLo, firstHi, lo, hi }) => ({
      first: { lo: mmFromTenths(firstLo), hi: mmFromTenths(firstHi) },
      second: { lo: mmFromTenths(lo), hi: mmFromTenths(hi) },
    })),
  });
}
