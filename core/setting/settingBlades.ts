import { tenthsFromMm } from '../length/index.ts';
import {
  handierStack,
  heldBlades,
  stacksOf,
  USUAL_REPEATABILITY_MM,
  type HeldBlades,
  type Stack,
} from '../measuring/index.ts';

/** The two blades an adjuster is set between: one that must go, one that must then not; null where the bench has none. */
export interface SettingBlades {
  readonly go: HeldBlades | null;
  readonly noGo: HeldBlades | null;
}

/** The blades a bench owns and what is to be set with them; lengths in mm. */
export interface SettingBladesInput {
  readonly blades: readonly number[];
  readonly maxStack: number;
  readonly min: number;
  /** the maximum with the allowance in it */
  readonly max: number;
  readonly target: number;
  readonly repeatability?: number | undefined;
  /** by how much this person's gap grows as the lock nut is tightened, see `lockShift` */
  readonly lockShift?: number | undefined;
}

/** A blade to set with lies no more than this share of the band under the target, where the bench has one. */
const NEAR_SHARE = 0.25;

/**
 * Names the blade, or stack, to set an adjuster with before it is locked, and the one that must then not go.
 *
 * Rule: what locking adds is set off first; what it opens is no leave to set under the minimum. One blade comes before a stack
 * and one near the target before one far under it. The other is far enough over it that a hand feels the difference, and no
 * more than the maximum: any that will not go up to there proves as much. After locking it is measured again, always.
 *
 * @example settingBlades({ blades: [0.1, 0.15, 0.2], maxStack: 1, target: 0.15, min: 0.1, max: 0.2 }).noGo?.thickness // 0.2
 */
export function settingBlades(input: SettingBladesInput): SettingBlades {
  const shift = tenthsFromMm(input.lockShift ?? 0);
  const target = tenthsFromMm(input.target) - shift;
  const max = tenthsFromMm(input.max) - shift;
  const min = tenthsFromMm(input.min) - Math.min(0, shift);
  if (min <= 0) return { go: null, noGo: null };
  const stacks = stacksOf(input.blades.map(tenthsFromMm), input.maxStack);
  const near = Math.max(min, target - NEAR_SHARE * (max - min));
  const go =
    firstOf(stacks, (thickness) => thickness >= near && thickness <= target, 'thickest') ??
    firstOf(stacks, (thickness) => thickness >= min && thickness <= target, 'thickest');
  if (!go) return { go: null, noGo: null };
  const felt = go.thickness + 2 * tenthsFromMm(input.repeatability ?? USUAL_REPEATABILITY_MM);
  const over = (thickness: number) => thickness > target && thickness > go.thickness && thickness <= max;
  const parted = (thickness: number) => over(thickness) && thickness >= felt;
  const single = stacks.filter(({ blades }) => blades.length === 1);
  const noGo =
    firstOf(single, parted, 'thinnest') ??
    firstOf(single, over, 'thickest') ??
    firstOf(stacks, parted, 'thinnest') ??
    firstOf(stacks, over, 'thickest');
  return { go: heldBlades(go), noGo: noGo ? heldBlades(noGo) : null };
}

/** Of the stacks that will do: the fewest blades, then the thickest or the thinnest, then the handier. */
function firstOf(
  stacks: readonly Stack[],
  willDo: (thickness: number) => boolean,
  way: 'thickest' | 'thinnest',
): Stack | undefined {
  const sign = way === 'thickest' ? -1 : 1;
  return stacks
    .filter(({ thickness }) => willDo(thickness))
    .sort(
      (a, b) => a.blades.length - b.blades.length || sign * (a.thickness - b.thickness) || handierStack(a, b),
    )[0];
}
