import { tenthsFromMm } from '../length/index.ts';
import { handierStack, stacksOf } from './bladeStack.ts';
import { heldBlades, type HeldBlades } from './goNoGo.ts';
import { hasFloor, type KnownGap } from './interval.ts';

/** mm: a gap this narrowly known is known well enough to choose a piece by. */
export const NARROW_ENOUGH_MM = 0.02;

/** mm: the least step from the one end that is known, away from the band. */
const LEAST_STEP = 0.02;
/** mm: nearer than this to a known end a blade feels the same as that end. */
const APART = 0.005;

/** The blades a bench owns and what is known of a point that is out of its band; lengths in mm. */
export interface NarrowingBladeInput extends KnownGap {
  readonly blades: readonly number[];
  readonly maxStack: number;
  /** the maximum with the allowance in it */
  readonly spec: { readonly min: number; readonly max: number };
  /** a gap this narrowly known is known well enough to choose a piece by */
  readonly enough: number;
}

/**
 * Says which blade, or stack, to try next at a point that is out, to find out by how much: pieces are chosen by the figure. At a
 * screw, out is out, and is set.
 *
 * Rule: with both ends known, halving; with one, a step from it away from the band, of 0.02 mm or as far as that end is out
 * already, so that steps double.
 *
 * @returns null where the point is not known to be out, is known narrowly enough, or no blade lies there
 * @example narrowingBlade({ blades: [0.1, 0.15], maxStack: 1, lo: 0, hi: 0.18, floor: false, spec: { min: 0.22, max: 0.3 }, enough: 0.02 })?.thickness // 0.15
 */
export function narrowingBlade(input: NarrowingBladeInput): HeldBlades | null {
  const [least, min, max] = [input.lo, input.spec.min, input.spec.max].map(tenthsFromMm) as [
    number,
    number,
    number,
  ];
  const hi = input.hi === null ? null : tenthsFromMm(input.hi);
  const lo = hasFloor(input) && least > 0 ? least : null;
  if (hi !== null && least > hi) return null;
  const tight = hi !== null && hi <= min;
  const loose = lo !== null && lo >= max;
  if (!tight && !loose) return null;
  if (lo !== null && hi !== null && hi - lo <= tenthsFromMm(input.enough)) return null;
  const step = (out: number) => Math.max(tenthsFromMm(LEAST_STEP), out);
  const wanted =
    lo !== null && hi !== null ? (lo + hi) / 2 : hi !== null ? hi - step(min - hi) : lo! + step(lo! - max);
  const inside = stacksOf(input.blades.map(tenthsFromMm), input.maxStack).filter(
    ({ thickness }) => thickness > (lo ?? 0) && thickness < (hi ?? Infinity),
  );
  const apart = inside.filter(({ thickness }) =>
    [lo, hi].every((end) => end === null || Math.abs(thickness - end) >= tenthsFromMm(APART)),
  );
  const worth = apart.length > 0 ? apart : inside;
  const single = worth.filter(({ blades }) => blades.length === 1);
  const [best] = (single.length > 0 ? single : worth).toSorted(
    (a, b) =>
      Math.abs(a.thickness - wanted) - Math.abs(b.thickness - wanted) ||
      a.thickness - b.thickness ||
      handierStack(a, b),
  );
  return best ? heldBlades(best) : null;
}
