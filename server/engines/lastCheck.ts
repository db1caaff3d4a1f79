import { randomUUID } from 'node:crypto';
import type { newLastCheck } from '@zero-lash/contract/engines';
import type { BuildWrite } from '@zero-lash/contract/builds';
import { IN_SERVICE } from '@zero-lash/core/builds';
import type { Reading } from '@zero-lash/core/measuring';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { headChange } from '../builds/read.ts';
import { recheckChanges } from '../rechecks/read.ts';
import { addReading } from '../measuring/store.ts';
import { Refusal } from '../plugins/errors.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { judgeKnown } from '../rechecks/store.ts';
import { planRecheck } from '../rechecks/planning.ts';
import { newestPublished } from '../sheets/read.ts';
import { openBuild } from '../stages/open.ts';
import { logFigure, readOn } from '../usage/store.ts';
import { clock } from '../clock.ts';

/**
 * Writes down when an engine in service was last checked, by whom and at which running figure, with its gaps as far as anybody knows
 * them, and plans its next recheck from there. It needs no work on the engine; nothing of it is signed.
 *
 * @returns what was opened for it, and the build that gave way
 * @throws Refusal `build_open` where somebody works on it, `usage_order` where the figure does not fit into its log, `usage_far` where it
 * cannot have run that and nobody says that it is right
 */
export async function writeLastCheck(
  db: Knex,
  engineId: string,
  { on, usage, by, sure, gaps }: z.output<typeof newLastCheck>,
  context: WriteContext,
): Promise<[BuildWrite, ...BuildWrite[]]> {
  const engine = await db('engines').where({ id: engineId }).forNoKeyUpdate().first('sheet_id', 'usage_unit');
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const sheet = await newestPublished(db, engine.sheet_id);
  if (!sheet) throw new Refusal('sheet_not_published');
  const at = await readOn(db, on, clock.now());
  await logFigure(
    db,
    {
      ...{ engineId, usage, at, reason: '', sure, newMeter: null, heatCycles: null },
      source: 'hand',
    },
    context.personId,
  );
  const { running } = (await db('usages')
    .where({ engine_id: engineId, usage, struck_at: null })
    .where('read_at', '<=', at)
    .orderBy('read_at', 'desc')
    .first('running'))!;
  const [opened, ...ended] = await openBuild(
    db,
    engineId,
    { revisionId: sheet.id, job: IN_SERVICE, complaint: '' },
    context.personId,
  );
  const build = { id: opened.build, engineId, revisionId: sheet.id };
  await db('builds')
    .where({ id: build.id })
    .update({ last_checked_on: on, last_checked_usage: running, last_checked_by: by });
  const from = { usage: running, on };
  await planRecheck(db, build, { sequence: 1, after: null, ...from });
  if (gaps.length > 0) await writeGaps(db, build, { at, running, gaps }, context);
  const changes = [await headChange(db, build.id), ...(await recheckChanges(db, build.id))];
  return [{ ...opened, changes }, ...ended];
}

/** Writes down what the gaps were then, as the recheck that they were, and plans the one that follows it. */
async function writeGaps(
  db: Knex,
  build: { readonly id: string; readonly engineId: string; readonly revisionId: string },
  {
    at,
    running,
    gaps,
  }: { readonly at: Date; readonly running: number; readonly gaps: z.output<typeof newLastCheck>['gaps'] },
  context: WriteContext,
): Promise<void> {
  const recheck = await db('rechecks').where({ build_id: build.id, sequence: 1 }).first('id');
  // an engine that is looked at by no plan has no recheck to hang them on
  if (!recheck) throw new Refusal('no_plan');
  await db('rounds').insert({
    ...{ id: recheck.id, build_id: build.id, revision_id: build.revisionId, recheck_id: recheck.id },
    ...{ kind: 'recheck', number: 1, opened_by: context.personId, opened_at: at, usage: running },
  });
  for (const { point, reading, asTyped } of gaps)
    await addReading(
      db,
      recheck.id,
      {
        ...{ point, reading: reading as Reading & typeof reading, asTyped, takenAt: at.toISOString() },
        ...{ doubtKept: true, crankAngle: null, instrumentId: null, blind: false, beforeLock: false },
        ...{ over: null, reason: '', narrowBlade: false },
      },
      { ...context, key: randomUUID(), clockAhead: 0 },
    );
  const outcome = await judgeKnown(db, build.id, recheck.id);
  await db('rechecks')
    .where({ id: recheck.id })
    .update({
      ...{ status: 'done', outcome, done_at: at, done_by: context.personId },
      // what nobody knows was not looked at
      points: JSON.stringify([...new Set(gaps.map(({ point }) => point))]),
    });
  await db('rounds').where({ id: recheck.id }).update({ closed_at: at, usage: running });
  const { last_checked_on: on } = (await db('builds').where({ id: build.id }).first('last_checked_on'))!;
  await planRecheck(db, build, { sequence: 2, after: outcome, usage: running, on: on! });
}
