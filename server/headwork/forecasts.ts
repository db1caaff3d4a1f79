import type { ForecastsOfSheet } from '@zero-lash/contract/headwork';
import { findings, currentLines } from '@zero-lash/core/builds';
import { forecastBias, pointBudget, type ForecastPair, type HeadWorkLine } from '@zero-lash/core/headwork';
import { mmFromTenths } from '@zero-lash/core/length';
import { limitsFromMm, whyUnknown } from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import { lashPoints, resolveLimits } from '@zero-lash/core/sheets';
import { characteristicOf, figuresAt, wearSheetOf } from '@zero-lash/core/wear';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { readReadings, readRounds } from '../measuring/rounds.ts';
import { findRevision } from '../sheets/read.ts';
import { json } from '../storedJson.ts';

/** Builds a forecast is held against: what was learned long ago was learned on other hands. */
const BUILDS = 20;

/**
 * Says how far forecasts of gaps on a pattern were off: of every point whose head work was done and measured, the gap that was
 * reckoned with the piece that was in, beside the first one measured after it, before anything was set.
 */
export async function readForecasts(db: Knex, sheetId: string): Promise<ForecastsOfSheet> {
  const builds: { id: string; revision_id: string }[] = await db('builds as b')
    .join('sheet_revisions as r', 'r.id', 'b.revision_id')
    .where('r.sheet_id', sheetId)
    .whereNull('b.abandoned_at')
    .whereExists(
      db('build_entries as e').whereRaw(`e.build_id = b.id and e.room = 'headwork'`).select(db.raw('1')),
    )
    .orderBy('b.opened_at', 'desc')
    .limit(BUILDS)
    .select('b.id', 'b.revision_id');
  const pairs: ForecastPair[] = [];
  for (const build of builds) pairs.push(...(await pairsOf(db, build)));
  return { bias: forecastBias(pairs) };
}

async function pairsOf(
  db: Knex,
  { id, revision_id: revisionId }: { readonly id: string; readonly revision_id: string },
): Promise<ForecastPair[]> {
  const sheet = await findRevision(db, revisionId);
  const { single_rule: rule } = (await db('builds').where({ id }).first('single_rule'))!;
  const resolved = resolveLimits(sheet.limits, json('builds.single_rule', rule));
  const entries = await readEntries(db, id, 'headwork');
  const lines = [
    ...currentLines<HeadWorkLine>(entries, ({ step, valve }) => `${step} ${valve}`).values(),
  ].map(({ line }) => line);
  const finished = entries.at(-1)?.at ?? '';
  const wear = wearSheetOf(await readEntries(db, id, 'wear'), sheet.wearLimits);
  const rounds = await readRounds(db, id);
  const found = findings(rounds.filter(({ kind }) => kind === 'as-found'));
  const set = await db('settings').where({ build_id: id }).whereNot({ kind: 'left' }).select('point', 'at');
  const measured = await readReadings(
    db,
    (query) => query.where({ 'r.build_id': id, 'r.kind': 'as-set' }).orderBy('g.taken_at'),
    'all',
  );
  return lashPoints(sheet.pattern).flatMap((point) => {
    const before = set.filter((each) => each.point === point.key).map(({ at }) => (at as Date).toISOString());
    const first = measured.find(
      (each) =>
        each.point === point.key &&
        each.takenAt > finished &&
        whyUnknown(each) === null &&
        !each.beforeLock &&
        !before.some((at) => at < each.takenAt),
    );
    const gap = found.get(point.key);
    const limits = resolved.find(({ role }) => role === point.role);
    if (!first || !gap || !limits) return [];
    const budget = pointBudget({
      ...{
        pattern: sheet.pattern,
        point,
        lines,
        target: mmFromTenths(aimFor('middle', point.role, limitsFromMm(limits))),
      },
      ...{ found: gap, limits: limitsFromMm(limits) },
      installed: figuresAt(wear, characteristicOf('piece-in')!, point.key, 'found')['value']?.[0] ?? null,
      ...{ standout: null, standoutLimits: null, tipLimit: null },
    });
    // only of what was done, and not of what was only planned
    if (!budget || budget.rows.length === 0 || budget.rows.some(({ done }) => !done)) return [];
    return [{ forecast: (budget.lo + budget.hi) / 2, measured: (first.lo + first.hi!) / 2 }];
  });
}
