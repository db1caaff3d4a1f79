import type { BuildWrite } from '@zero-lash/contract/builds';
import type { KnowHowChange, KnowHowRow, newKnowHow } from '@zero-lash/contract/knowHow';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { readKnowHow } from './read.ts';

/** Keeps something learned at a build for every later build of its pattern. */
export async function addKnowHow(
  db: Knex,
  buildId: string,
  { stage, text, about, crankAngle, takenAt }: z.output<typeof newKnowHow>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  const { sheetId } = await findRevision(db, build.revisionId);
  await db('know_how').insert({
    ...{ id: context.key, sheet_id: sheetId, build_id: buildId, stage, text, by: context.personId },
    ...{ about, crank_angle: crankAngle },
    at: whenTaken(takenAt, context, build.openedAt),
  });
  const [row] = await readKnowHow(db, { id: context.key });
  return written(build, { kind: 'know-how', row: row! });
}

/** Words a note again, or takes it away; a lead does. */
export async function changeKnowHow(
  db: Knex,
  id: string,
  { version, text, dropped }: KnowHowChange,
): Promise<KnowHowRow> {
  const changed = await db('know_how')
    .where({ id, version })
    .update({ text, dropped, version: version + 1 });
  const [row] = await readKnowHow(db, { id });
  if (!row) throw new Refusal('not_found', { detail: 'There is no such note.' });
  if (changed === 0) throw new Refusal('stale', { current: row });
  return row;
}
