import type { CalendarFeed } from '@zero-lash/contract/calendar';
import type { Knex } from 'knex';
import type { Tables } from 'knex/types/tables.js';
import { Refusal } from '../plugins/errors.ts';

const FEED = ['id', 'made_at', 'withdrawn_at'] as const;

/** A person's own feeds, newest first. */
export async function readFeeds(db: Knex, personId: string): Promise<CalendarFeed[]> {
  const rows = await db('calendar_feeds')
    .where({ person_id: personId })
    .orderBy('made_at', 'desc')
    .select(...FEED);
  return rows.map(feedOf);
}

const feedOf = (row: Pick<Tables['calendar_feeds'], (typeof FEED)[number]>): CalendarFeed => ({
  ...{ id: row.id, madeAt: row.made_at.toISOString() },
  withdrawnAt: row.withdrawn_at?.toISOString() ?? null,
});

/** Makes a feed; of its address only the hash is kept. */
export async function addFeed(db: Knex, personId: string, hash: Buffer): Promise<CalendarFeed> {
  const [row] = await db('calendar_feeds')
    .insert({ person_id: personId, token_hash: hash })
    .returning([...FEED]);
  return feedOf(row!);
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
