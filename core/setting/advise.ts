import type { Interval, Limits } from '../measuring/index.ts';
import type { Means } from '../sheets/index.ts';
import { mmFromTenths, type Tenths } from '../length/index.ts';
import { screwTurn, type ScrewTurn } from './screwTurn.ts';
import { chooseShim, type ShimChoice } from './shimDifference.ts';
import { sizesOf } from './sizes.ts';

/** What to do at one point to bring it to its target. */
export type SettingAdvice =
  | { readonly kind: 'turn'; readonly turn: ScrewTurn }
  | { readonly kind: 'fit'; readonly choice: ShimChoice; readonly installed: Tenths }
  | { readonly kind: 'need-installed' }
  | { readonly kind: 'need-reading' }
  | { readonly kind: 'no-blade-went' };

/**
 * Says what to do at a point: how far to turn its adjuster, or which graded piece to fit.
 *
 * @param installed the piece in place, in tenths of a micrometre; null where it is not known (or there is none)
 * @param lockShift mm, by how much this person's gap grows as the lock nut is tightened, see `lockShift`
 *
 * Where no blade went nothing bounds the gap from below, and the valve may be held open by any amount: nothing is worked out
 * from that. It is backed off, or a thinner piece fitted, until a blade goes; then it is measured.
 *
 * @returns `no-blade-went` there, `need-reading` where nothing bounds the gap or the tries contradict, `need-installed` where the piece is not known
 * @example adviseSetting(means, { lo: 700, hi: 800 }, 1500, limits, null)
 */
export function adviseSetting(
  means: Means,
  measured: Interval | null,
  target: Tenths,
  limits: Limits,
  installed: Tenths | null,
  lockShift = 0,
): SettingAdvice {
  if (!measured || measured.hi === null || measured.lo > measured.hi) return { kind: 'need-reading' };
  if (measured.lo <= 0) return { kind: 'no-blade-went' };
  if (means.kind === 'screw' || means.kind === 'pivot-nut') {
    const turn = screwTurn({
      measured: mmFromTenths((measured.lo + measured.hi) / 2),
      target: mmFromTenths(target),
      pitch: means.pitch,
      screwSide: means.kind === 'pivot-nut' ? 'pivot' : means.end,
      rockerRatio: means.rockerRatio,
      lockShift,
    });
    return { kind: 'turn', turn };
  }
  if (installed === null) return { kind: 'need-installed' };
  const choice = chooseShim(measured, installed, target, limits, sizesOf(means.sizes));
  return choice ? { kind: 'fit', choice, installed } : { kind: 'need-reading' };
}
