import type { CalendarFeed } from '@zero-lash/contract/calendar';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';

/** A person's own feeds, newest first. */
export async function readFeeds(db: Knex, personId: string): Promise<CalendarFeed[]> {
  const rows = (await db('calendar_feeds')
    .where({ person_id: personId })
    .orderBy('made_at', 'desc')
    .select('id', 'made_at as madeAt', 'withdrawn_at as withdrawnAt')) as {
    id: string;
    madeAt: Date;
    withdrawnAt: Date | null;
  }[];
  return rows.map(feedOf);
}

const feedOf = (row: { id: string; madeAt: Date; withdrawnAt: Date | null }): CalendarFeed => ({
  ...{ id: row.id, madeAt: row.madeAt.toISOString() },
  withdrawnAt: row.withdrawnAt?.toISOString() ?? null,
});

/** Makes a feed; of its address only the hash is kept. */
export async function addFeed(db: Knex, personId: string, hash: Buffer): Promise<CalendarFeed> {
  const [row] = await db('calendar_feeds')
    .insert({ person_id: personId, token_hash: hash })
    .returning(['id', 'made_at as madeAt', 'withdrawn_at as withdrawnAt']);
  return feedOf(row);
}

/** Withdraws a feed of one's own: its address leads nowhere from then on. */
export async function withdrawFeed(db: Knex, id: string, personId: string): Promise<void> {
  const withdrawn = await db('calendar_feeds')
    .where({ id, person_id: personId })
    .update({ withdrawn_at: db.raw('coalesce(withdrawn_at, now())') });
  if (withdrawn === 0) throw new Refusal('not_found', { detail: 'There is no such calendar of yours.' });
}

/** Whose feed an address is; undefined where it is nobody's, was withdrawn, or its person may not come in any more. */
export async function ownerOfFeed(db: Knex, hash: Buffer): Promise<string | undefined> {
  const row = await db('calendar_feeds as f')
    .join('people as p', 'p.id', 'f.person_id')
    .where({ 'f.token_hash': hash, 'p.active': true })
    .whereNull('f.withdrawn_at')
    .first('p.id');
  return row?.id;
}
