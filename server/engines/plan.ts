import type { newEnginePlan } from '@zero-lash/contract/engines';
import { NO_METER, stepsByRunning, strangePoints } from '@zero-lash/contract/recheckPlan';
import { lashPoints } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { toldOf } from '../builds/write.ts';
import { announce } from '../plugins/bus.ts';
import { Refusal } from '../plugins/errors.ts';
import { sheetOf } from '../rechecks/ownPlan.ts';
import { replan } from '../rechecks/planning.ts';
import { recheckChanges } from '../rechecks/read.ts';
import { changeAt } from './store.ts';

/**
 * Gives an engine a plan of its own, or lets it go by its sheet again. Its next recheck is planned again, unless a lead moved
 * that one or it is being measured.
 *
 * @throws Refusal `invalid` where the plan names a point that the head does not have
 */
export async function givePlan(
  db: Knex,
  id: string,
  { steps, why, version }: z.output<typeof newEnginePlan>,
  context: WriteContext,
): Promise<void> {
  const { sheetId, usageUnit } = await changeAt(db, id, version, {});
  const sheet = await sheetOf(db, id, sheetId);
  if (!sheet) throw new Refusal('sheet_not_published');
  const strange = strangePoints(steps ?? [], new Set(lashPoints(sheet.pattern).map(({ key }) => key)));
  if (strange.length > 0)
    throw new Refusal('invalid', {
      fields: strange.map(({ step, point }) => ({
        path: `steps.${step}.points`,
        message: `there is no point ${point} on this head`,
      })),
    });
  const byRunning = stepsByRunning(steps ?? [], usageUnit);
  if (byRunning.length > 0)
    throw new Refusal('invalid', {
      fields: byRunning.map((step) => ({ path: `steps.${step}.afterUsage`, message: NO_METER })),
    });
  await db('engine_plans').insert({
    ...{ id: context.key, engine_id: id, plan: steps && JSON.stringify(steps), why, by: context.personId },
  });
  const buildId = await replan(db, id, { why, personId: context.personId });
  if (buildId === null) return;
  const build = await lockBuild(db, buildId);
  await announce(db, toldOf(written(build, ...(await recheckChanges(db, build.id)))));
}
