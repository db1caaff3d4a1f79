import type { BuildWrite } from '@zero-lash/contract/builds';
import type { droppedPhotograph, newPhotograph, PhotographRow } from '@zero-lash/contract/photographs';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { Refusal } from '../plugins/errors.ts';
import { readPhotographs } from './read.ts';
import type { Picture } from '../plugins/picture.ts';

/** Keeps a photograph with its build. */
export async function addPhotograph(
  db: Knex,
  buildId: string,
  { stage, about, note, shows, takenAt }: z.output<typeof newPhotograph>,
  { bytes, width, height }: Picture,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  await db('photographs').insert({
    ...{ id: context.key, build_id: buildId, stage, about, note, shows, width, height, picture: bytes },
    ...{ by: context.personId, at: whenTaken(takenAt, context, build.openedAt) },
  });
  return written(build, { kind: 'photograph', row: await photographOf(db, buildId, context.key) });
}

async function photographOf(db: Knex, buildId: string, id: string): Promise<PhotographRow> {
  const [row] = await readPhotographs(db, buildId, id);
  if (!row) throw new Refusal('not_found', { detail: 'There is no such photograph.' });
  return row;
}

/** Takes a photograph out of sight, or shows it again; it stays on the record. */
export async function dropPhotograph(
  db: Knex,
  buildId: string,
  id: string,
  { dropped }: z.output<typeof droppedPhotograph>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  await db('photographs')
    .where({ id, build_id: buildId })
    .update({ dropped_at: dropped ? db.fn.now() : null, dropped_by: dropped ? context.personId : null });
  return written(build, { kind: 'photograph', row: await photographOf(db, buildId, id) });
}
