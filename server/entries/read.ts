import { headWorkLine } from '@zero-lash/contract/headwork';
import { ledgerLine } from '@zero-lash/contract/parts';
import { ranLine } from '@zero-lash/contract/ran';
import { wearLine } from '@zero-lash/contract/wear';
import type { Knex } from 'knex';
import { z } from 'zod';
import { stored } from '../stored.ts';

/** Lines of each room that is written entry by entry, by the format they are stored in. */
const LINES = {
  wear: wearLine,
  headwork: headWorkLine,
  ledger: ledgerLine,
  ran: ranLine,
} as const;
/** A room in which one hand writes several lines at one moment, and the newest of each stands. */
export type EntryRoom = keyof typeof LINES;
export type Line<Room extends EntryRoom> = z.output<(typeof LINES)[Room]>;

/** An entry as it is answered. */
export interface EntryRow<Room extends EntryRoom> {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly lines: Line<Room>[];
}

const PARSE = {
  wear: stored('a wear sheet', { 1: z.array(LINES.wear) }),
  headwork: stored('head work', { 1: z.array(LINES.headwork) }),
  ledger: stored('a count of parts', { 1: z.array(LINES.ledger) }),
  ran: stored('how it ran', { 1: z.array(LINES.ran) }),
};

/** Reads what was written in a room of a build, oldest first; one entry where it is named. */
export async function readEntries<Room extends EntryRoom>(
  db: Knex,
  buildId: string,
  room: Room,
  id?: string,
): Promise<EntryRow<Room>[]> {
  const query = db('build_entries as e')
    .join('people as p', 'p.id', 'e.by')
    .where({ 'e.build_id': buildId, 'e.room': room })
    .orderBy(['e.at', 'e.id'])
    .select('e.id', 'p.name as by', 'e.at', 'e.format', 'e.lines');
  if (id !== undefined) query.where('e.id', id);
  const rows = (await query) as { id: string; by: string; at: Date; format: number; lines: unknown }[];
  return rows.map(({ id: key, by, at, format, lines }) => ({
    ...{ id: key, by, at: at.toISOString() },
    lines: PARSE[room](format, lines) as Line<Room>[],
  }));
}
