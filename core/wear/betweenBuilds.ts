import type { Pattern } from '../sheets/index.ts';
import type { Characteristic } from './characteristics.ts';
import { LIMIT_KINDS, limitAt, type LimitKey } from './limitKinds.ts';
import { wearRate, type WearRate } from './wearRate.ts';
import { figuresAt, gradedBy, type WearSheet } from './wearSheet.ts';
import { characteristicsFor, placesOf, type WearPlace } from './wearPlaces.ts';
import type { FigureLine } from './wearLines.ts';

/** What one build of an engine measured, at which running. */
export interface WearOfBuild {
  readonly running: number;
  readonly sheet: WearSheet;
}

/** What one thing measured at one place, build after build: since it was last replaced, and what was found before that. */
export interface WearTrend extends WearRate {
  readonly item: Characteristic;
  readonly place: WearPlace;
  readonly part: LimitKey;
  readonly limit: number;
  readonly before: readonly number[];
  readonly seen: readonly { readonly usage: number; readonly measured: number }[];
}

/**
 * Follows every figure that has a limit through the builds of an engine, the one that meets its limit first before the others. What
 * was replaced begins again: the old part's figures are shown, and say nothing of the new one.
 *
 * @param builds in the order of the work; the limits are those of the last
 * @returns nothing of what was measured once only, and never replaced
 * @example wearBetween(pattern, []).length // 0
 */
export function wearBetween(pattern: Pattern, builds: readonly WearOfBuild[]): readonly WearTrend[] {
  const limits = builds.at(-1)?.sheet.limits ?? [];
  return characteristicsFor(pattern)
    .flatMap((item) =>
      item.limits.flatMap((part) =>
        placesOf(pattern, item).flatMap((place): WearTrend[] => {
          const given = limitAt(limits, part, place);
          if (!given || given.limit === null || given.nominal === given.limit) return [];
          const { grows } = LIMIT_KINDS[part];
          // without a nominal figure only the way it wears is known
          const nominal = given.nominal ?? given.limit + (grows ? -1 : 1);
          const figure = (sheet: WearSheet, set: FigureLine['set']) =>
            gradedBy(sheet, pattern, item, place, set, figuresAt(sheet, item, place.key, set))?.held.find(
              (each) => each.part === part,
            )?.figure ?? null;
          let before: readonly number[] = [];
          let seen: WearTrend['seen'] = [];
          for (const { running, sheet } of builds) {
            const [found, fitted] = [figure(sheet, 'found'), figure(sheet, 'fitted')];
            if (found !== null) seen = [...seen, { usage: running, measured: found }];
            if (fitted === null && !isRenewed(sheet, item, place)) continue;
            before = [...before, ...seen.map(({ measured }) => measured)];
            seen = fitted === null ? [] : [{ usage: running, measured: fitted }];
          }
          const rate = wearRate({ observations: seen, nominal, limit: given.limit });
          if (rate.perUnit === null && (before.length === 0 || seen.length === 0)) return [];
          return [{ item, place, part, limit: given.limit, before, seen, ...rate }];
        }),
      ),
    )
    .toSorted((a, b) => (a.atLimit ?? Infinity) - (b.atLimit ?? Infinity));
}

/** Whether the part that a figure is of was fitted new in a build. */
function isRenewed({ current }: WearSheet, { part }: Characteristic, { key }: WearPlace): boolean {
  const line = current.get(`fate ${part} ${key}`)?.line;
  return line?.kind === 'fate' && line.fate === 'replace' && line.order === 'fitted';
}
