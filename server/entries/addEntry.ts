import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import { CLOSING, RUNNING } from '@zero-lash/core/builds';
import type { Pattern } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { holdAgainstSignature } from '../rechecks/late.ts';
import { takeLate } from '../builds/cameLate.ts';
import { lockBuild, written } from '../builds/lock.ts';
import { readEntries, type EntryRoom, type Line } from './read.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';

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
  context: WriteContext,
  complain: (
    line: Line<Room>,
    pattern: Pattern,
  ) => { readonly path: string; readonly message: string } | null,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  const signed = build.stage === RUNNING;
  // how it ran is said once it runs, and everything else before
  if (room === 'ran' && !signed)
    throw new Refusal('wrong_stage', {
      detail: 'How it ran is written down once it is signed off and runs.',
    });
  const at = whenTaken(takenAt, context, build.openedAt);
  if (room !== 'ran' && signed)
    await takeLate(db, build, CLOSING, at, [
      'wrong_stage',
      { detail: 'This build is signed off: what is found now belongs to its next one.' },
    ]);
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
    id: context.key,
    build_id: buildId,
    room,
    lines: JSON.stringify(lines),
    by: context.personId,
    at,
  });
  const [row] = await readEntries(db, buildId, room, context.key);
  const own = { kind: room, row: row! } as unknown as BuildRowChange;
  return written(build, own, ...(room === 'ran' ? [] : await holdAgainstSignature(db, build)));
}
