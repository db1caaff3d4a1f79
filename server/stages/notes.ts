import type { BuildWrite, noteRequest, tickRequest } from '@zero-lash/contract/builds';
import { hasCheck, mayAccept, onlyByLead, provenBy, stageOf, subjectOf } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { lockBuild, written } from '../builds/lock.ts';
import { isAhead } from '../clock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { findRevision } from '../sheets/read.ts';
import { lookAtOnce } from '../rechecks/store.ts';
import { readNotes, readTicks } from '../builds/read.ts';
import { readWhole } from '../builds/readWhole.ts';
import { tickedBefore } from './ticked.ts';

/** Ticks a check of the stage the build is at, or takes the tick back. What was done last holds, whichever came in first. */
export async function tick(
  db: Knex,
  id: string,
  { stage, check, done, takenAt }: z.output<typeof tickRequest>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, id);
  const sheet = await findRevision(db, build.revisionId);
  if (!hasCheck(stage, check, sheet.pattern, sheet)) throw new Refusal('unknown_check');
  const byLead = done ? onlyByLead(check) : null;
  if (byLead && !context.leads) throw new Refusal('forbidden', { detail: byLead });
  if (done) await refuseAcceptance(db, id, check);
  const at = whenTaken(takenAt, context, build.openedAt);
  const place = { build_id: id, stage, check_key: check };
  const before = await db('stage_ticks').where(place).first('done', 'at');
  const here = build.stage === stage;
  // what is so already may be said again from a device that did not know that the build went on
  if (!here && (before?.done ?? false) !== done) throw new Refusal('wrong_stage');
  if (here && (!before || before.at <= at || isAhead(before.at)))
    await db('stage_ticks')
      .insert({ ...place, done, by: context.personId, at, earlier: [] })
      .onConflict(['build_id', 'stage', 'check_key'])
      // when it was ticked before stays known: what was read after it was
      .merge({ done, by: context.personId, at, ...tickedBefore(db) });
  // one that comes in late was ticked all the same
  else if (here && done)
    await db('stage_ticks')
      .where(place)
      .update({
        earlier: db.raw('array_append(earlier, ?::timestamptz)', [at]),
        earlier_by: db.raw('array_append(earlier_by, ?::uuid)', [context.personId]),
      });
  const row = (await readTicks(db, id)).find((each) => each.stage === stage && each.check === check);
  const torqued = here && done && stageOf(stage).measures === 'recheck';
  const looked = torqued ? await lookAtOnce(db, id, context) : [];
  return written(
    build,
    {
      kind: 'tick',
      row: row ?? { stage, check, done, by: context.name, at: at.toISOString(), earlier: [] },
    },
    ...looked,
  );
}

/** Lets a point stand as it is only where it was left alone and is no worse than wide. */
async function refuseAcceptance(db: Knex, id: string, check: string): Promise<void> {
  const point = subjectOf('accepted', check);
  if (point === null) return;
  const build = await readWhole(db, id);
  if (mayAccept(point, { ...build, proofs: provenBy(build) })) return;
  throw new Refusal('not_acceptable', {
    detail: `${point} cannot be left as it is: it is measured at proving, left alone with a reason, and not tight.`,
    points: [point],
  });
}

/**
 * Writes something down at a stage, where the build is or was. What is written where it was signed off, after it was, is an
 * addition to the sign-off, which itself is never changed.
 */
export async function addNote(
  db: Knex,
  id: string,
  { stage, text, takenAt }: z.output<typeof noteRequest>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, id);
  const signed = stageOf(stage).demands.includes('signed-off')
    ? await db('sign_offs').where({ build_id: id }).first('at')
    : undefined;
  if (signed && !context.leads)
    throw new Refusal('forbidden', { detail: 'Signed off: only a lead adds something to it.' });
  const at = whenTaken(takenAt, context, build.openedAt);
  await db('stage_notes').insert({ id: context.key, build_id: id, stage, text, by: context.personId, at });
  const [row] = await readNotes(db, id, context.key);
  return written(build, { kind: 'note', row: row! });
}
