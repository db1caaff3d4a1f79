import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import { headWorkLine } from '@zero-lash/contract/headwork';
import { ledgerLine } from '@zero-lash/contract/parts';
import { ranLine } from '@zero-lash/contract/ran';
import { wearLine } from '@zero-lash/contract/wear';
import { STAGE_KEYS } from '@zero-lash/core/builds';
import type { Pattern } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { stored } from '../stored.ts';
import { takeUp, written } from './course.ts';
import { whenTaken, type Hand } from './hand.ts';

/** Lines of each room that is written entry by entry, by the format they are stored in. */
const LINES = {
  wear: wearLine,
  headwork: headWorkLine,
  ledger: ledgerLine,
  ran: ranLine,
} as const;
/** A room in which one hand writes several lines at one moment, and the newest of each stands. */
export type EntryRoom = keyof typeof LINES;
type Line<Room extends EntryRoom> = z.output<(typeof LINES)[Room]>;

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

/**
 * Writes lines of one hand in a room of a build. What was done last stands, whichever came in first.
 *
 * @param complain says of a line what this engine has no place for; null where it fits
 */
export async function addEntry<Room extends EntryRoom>(
  db: Knex,
  buildId: string,
  room: Room,
  { lines, takenAt }: { readonly lines: readonly Line<Room>[]; readonly takenAt: string | null },
  hand: Hand,
  complain: (
    line: Line<Room>,
    pattern: Pattern,
  ) => { readonly path: string; readonly message: string } | null,
): Promise<BuildWrite> {
  const build = await takeUp(db, buildId);
  const signed = build.stage === STAGE_KEYS.at(-1);
  // how it ran is said once it runs, and everything else before
  if (room === 'ran' && !signed)
    throw new Refusal('wrong_stage', {
      detail: 'How it ran is written down once it is signed off and runs.',
    });
  if (room !== 'ran' && signed)
    throw new Refusal('wrong_stage', {
      detail: 'This build is signed off: what is found now belongs to its next one.',
    });
  const { pattern } = await findRevision(db, build.revisionId);
  const fields = lines.flatMap((line, index) => {
    const complaint = complain(line, pattern);
    return complaint ? [{ path: `lines.${index}.${complaint.path}`, message: complaint.message }] : [];
  });
  if (fields.length > 0)
    throw new Refusal('unknown_place', {
      detail: `This engine does not have that: ${fields[0]!.message}.`,
      fields,
    });
  await db('build_entries').insert({
    id: hand.key,
    build_id: buildId,
    room,
    lines: JSON.stringify(lines),
    by: hand.personId,
    at: whenTaken(takenAt, hand, build.openedAt),
  });
  const [row] = await readEntries(db, buildId, room, hand.key);
  return written(build, { kind: room, row: row! } as unknown as BuildRowChange);
}
