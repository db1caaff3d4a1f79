import type { BuildWrite } from '@zero-lash/contract/builds';
import type { newPatternParts } from '@zero-lash/contract/parts';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { findRevision } from '../sheets/read.ts';
import { readPatternParts } from './room.ts';

/** Keeps what was counted otherwise than listed, for every later build of the pattern. */
export async function keepPatternParts(
  db: Knex,
  buildId: string,
  { lines, takenAt }: z.output<typeof newPatternParts>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  const { sheetId } = await findRevision(db, build.revisionId);
  await db('pattern_parts').insert({
    ...{ id: context.key, sheet_id: sheetId, build_id: buildId, by: context.personId },
    lines: JSON.stringify(lines),
    at: whenTaken(takenAt, context, build.openedAt),
  });
  const [row] = await readPatternParts(db, { id: context.key });
  return written(build, { kind: 'pattern-parts', row: row! });
}
