import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { handierStack, stacksOf } from './bladeStack.ts';
import type { HeldBlades } from './goNoGo.ts';

/** A gap this narrowly known, in mm, is known well enough to set by. */
const NARROW_ENOUGH_MM = 0.05;

/**
 * Says which blade, or stack, narrows a gap further, for setting by it: the one nearest the middle of what is known.
 *
 * @param input blades owned and what is known, in mm
 * @returns null where it is known narrowly enough, or no blade lies between
 * @example narrowingBlade({ blades: [0.05, 0.1, 0.15], maxStack: 1, lo: 0, hi: 0.2 })?.thickness // 0.1
 * Rule: halving; each try leaves half of what was not known.
 */
export function narrowingBlade(input: {
  readonly blades: readonly number[];
  readonly maxStack: number;
  readonly lo: number;
  readonly hi: number | null;
}): HeldBlades | null {
  const lo = tenthsFromMm(input.lo);
  const hi = input.hi === null ? null : tenthsFromMm(input.hi);
  if (hi !== null && hi - lo <= tenthsFromMm(NARROW_ENOUGH_MM)) return null;
  const between = stacksOf(input.blades.map(tenthsFromMm), input.maxStack).filter(
    ({ thickness }) => thickness > lo && (hi === null || thickness < hi),
  );
  // with no upper end known, the next step up that is wide enough to be worth a try
  const wanted = hi === null ? lo + tenthsFromMm(NARROW_ENOUGH_MM) : (lo + hi) / 2;
  const best = between.sort(
    (a, b) => Math.abs(a.thickness - wanted) - Math.abs(b.thickness - wanted) || handierStack(a, b),
  )[0];
  return best ? { blades: best.blades.map(mmFromTenths), thickness: mmFromTenths(best.thickness) } : null;
}
