import type { BuildWrite } from '@zero-lash/contract/builds';
import type { newSetting } from '@zero-lash/contract/setting';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { tenthsFromMm } from '@zero-lash/core/length';
import { mayBeBare, SETTING, stageOf } from '@zero-lash/core/builds';
import { meansFor } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { takeLate } from '../builds/cameLate.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { isAhead } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { holdAgainstSignature } from '../rechecks/late.ts';
import { effectiveSheet, type EffectiveSheet } from '../sheets/effectiveSheet.ts';
import { limitsAt, pointAt } from '../sheets/limitsAt.ts';
import { findRevision } from '../sheets/read.ts';
import { moveForSetting } from '../pieces/store.ts';
import { readSettings } from './read.ts';

/** Refuses to have turned what is set by a graded piece, or fitted one where there is only a screw. */
function refuseOtherMeans(sheet: SheetRevision, { point, kind }: z.output<typeof newSetting>): void {
  const { role } = pointAt(sheet, point);
  if (kind === 'left') return;
  const { kind: means } = meansFor(sheet.pattern, role);
  if (kind === 'bare' && !mayBeBare(sheet.pattern, role))
    throw new Refusal('other_means', {
      detail: `${point} is not measured bare: only with a shim under a bucket, and only where the sheet says that the maker allows it to be turned so.`,
      fields: [{ path: 'kind', message: 'is not how this point is measured' }],
    });
  const turns = means === 'screw' || means === 'pivot-nut';
  if (turns === (kind === 'turned')) return;
  throw new Refusal('other_means', {
    detail: turns
      ? `${point} is set by a screw: say how far it was turned.`
      : `${point} is set by a graded piece: say which was taken out and which was fitted.`,
    fields: [{ path: 'kind', message: 'is not how this point is set' }],
  });
}

/** Refuses to set a point whose limits are still to come: it may be found and set in one lap. */
function refuseWithoutLimits(sheet: EffectiveSheet, { point, kind }: z.output<typeof newSetting>): void {
  if (kind === 'left' || limitsAt(sheet, point, 'set') !== null) return;
  throw new Refusal('stage_not_ready', {
    detail: `The sheet has no limits for ${point} yet: nothing is set without them.`,
    points: [point],
  });
}

/**
 * Records what was set at a point. What was changed last stands, whichever came in first, and beside it that it was left alone
 * last; what stood before is superseded.
 */
export async function addSetting(
  db: Knex,
  buildId: string,
  input: z.output<typeof newSetting>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  const sheet = await findRevision(db, build.revisionId);
  refuseOtherMeans(sheet, input);
  refuseWithoutLimits(effectiveSheet(sheet, build), input);
  // a piece comes out of a point that there is
  if (input.giver !== null) pointAt(sheet, input.giver);
  const at = whenTaken(input.takenAt, context, build.openedAt);
  // that a point cannot be reached, or came apart, is found wherever it is measured
  const { measures } = stageOf(build.stage);
  const found = input.cause !== 'chosen' && measures !== null && measures !== 'recheck';
  if (!found)
    await takeLate(db, build, SETTING, at, ['wrong_stage', { detail: 'Settings are recorded at Set.' }]);
  // what is left alone stands beside what was last changed there: that stays changed
  const current = (query: Knex.QueryBuilder) =>
    query
      .where({ build_id: buildId, point: input.point, superseded: false })
      .whereRaw(`(kind = 'left') = ?`, [input.kind === 'left']);
  const earlier = (await db('settings').modify(current).first('at', 'mark')) as
    { at: Date; mark: string } | undefined;
  if (input.giver !== null) await refuseTwice(db, buildId, input);
  const late = earlier !== undefined && at < earlier.at && !isAhead(earlier.at);
  if (earlier && !late) await db('settings').modify(current).update('superseded', true);
  await db('settings').insert({
    id: context.key,
    build_id: buildId,
    revision_id: build.revisionId,
    point: input.point,
    kind: input.kind,
    degrees: input.degrees,
    installed: input.installed === null ? null : tenthsFromMm(input.installed),
    fitted: input.fitted === null ? null : tenthsFromMm(input.fitted),
    mark: input.mark,
    note: input.note,
    piece_from: input.from,
    piece_to: input.to,
    piece_giver: input.giver,
    cause: input.cause,
    by: context.personId,
    at,
    superseded: late,
  });
  await moveForSetting(db, {
    ...{ sheet, buildId, input, personId: context.personId, at },
    // the mark that was on what came out
    markOut: earlier?.mark ?? '',
  });
  const [row] = await readSettings(db, buildId, context.key);
  return written(build, { kind: 'setting', row: row! }, ...(await holdAgainstSignature(db, build)));
}

/**
 * Refuses a piece that is in somewhere else already: what a point gave it has not, until something is fitted there again.
 *
 * @throws Refusal `not_there`
 */
async function refuseTwice(
  db: Knex,
  buildId: string,
  { point, giver }: z.output<typeof newSetting>,
): Promise<void> {
  const current = { build_id: buildId, superseded: false };
  const own = (await db('settings')
    .where({ ...current, point: giver! })
    .whereIn('kind', ['fitted', 'bare'])
    .first('at')) as { at: Date } | undefined;
  const given = (await db('settings')
    .where({ ...current, piece_giver: giver, piece_from: 'engine' })
    .whereNot({ point })
    .orderBy('at', 'desc')
    .first('point', 'at')) as { point: string; at: Date } | undefined;
  if (!given || (own && own.at > given.at)) return;
  throw new Refusal('not_there', {
    detail: `What was in at ${giver!} is in at ${given.point} already: a piece is not in two places.`,
    fields: [{ path: 'giver', message: `its piece is in at ${given.point}` }],
  });
}
