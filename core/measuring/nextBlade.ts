import { mmFromTenths, tenthsFromMm, type Tenths } from '../length/index.ts';
import { handierStack, stacksOf, type Stack } from './bladeStack.ts';
import { hasFloor, type Interval, type KnownGap } from './interval.ts';
import { judge } from './judge.ts';

/** The blades a bench owns, what is known of the gap, and its limits; lengths in mm. */
export interface NextBladeInput extends KnownGap {
  readonly blades: readonly number[];
  readonly maxStack: number;
  /** the maximum with the allowance in it; null where the sheet has no limits yet */
  readonly spec: { readonly min: number; readonly max: number } | null;
}

/** The blade or stack to try, and which limit it settles. */
export interface BladeTest {
  readonly blades: readonly number[];
  readonly thickness: number;
  /** none where there are no limits: it only narrows what is known */
  readonly limit: 'min' | 'max' | null;
}

/**
 * Says which blade, or stack, to try next: the one that settles the low limit first, because a tight valve burns.
 *
 * Only a thickness strictly between what is known can say anything new. For the low limit it is the smallest at or
 * above it, or failing that the largest below; for the high limit the largest at or below it, or the smallest above. Without limits it
 * is the single blade nearest to the middle of what is known, and the next thicker one while none was refused.
 *
 * @returns `test` null where the verdict is decided, or where no owned blade can say more
 * @example nextBlade({ blades: [0.1, 0.2], maxStack: 1, lo: 0.13, hi: null, spec: { min: 0.2, max: 0.26 } }).test?.limit // 'min'
 */
export function nextBlade(input: NextBladeInput): { readonly test: BladeTest | null } {
  const interval = {
    lo: tenthsFromMm(input.lo),
    hi: input.hi === null ? null : tenthsFromMm(input.hi),
    floor: input.floor,
  };
  if (input.spec === null) return { test: nextWithoutLimits(input, interval) };
  const min = tenthsFromMm(input.spec.min);
  const max = tenthsFromMm(input.spec.max);
  const { verdict } = judge(interval, { min, max });
  if (!verdict.startsWith('undecided')) return { test: null };
  const stacks = stacksOf(input.blades.map(tenthsFromMm), input.maxStack).filter(
    ({ thickness }) => thickness > interval.lo && thickness < (interval.hi ?? Infinity),
  );
  const limit = verdict === 'undecided-high' ? 'max' : 'min';
  const best = limit === 'min' ? nearestAtOrAbove(stacks, min) : nearestAtOrBelow(stacks, max);
  if (!best) return { test: null };
  return {
    test: {
      blades: best.blades.map(mmFromTenths),
      thickness: mmFromTenths(best.thickness),
      limit,
    },
  };
}

/** The single blade that narrows what is known the most; none before anything is tried. */
function nextWithoutLimits({ blades, lo, hi }: NextBladeInput, known: Interval): BladeTest | null {
  if (!hasFloor(known) && hi === null) return null;
  const within = blades
    .filter((blade) => tenthsFromMm(blade) > known.lo && tenthsFromMm(blade) < (known.hi ?? Infinity))
    .sort((a, b) => a - b);
  const middle = hi === null ? lo : (lo + hi) / 2;
  const nearest = within.reduce<number | undefined>(
    (best, blade) =>
      best !== undefined && Math.abs(best - middle) <= Math.abs(blade - middle) ? best : blade,
    undefined,
  );
  return nearest === undefined ? null : { blades: [nearest], thickness: nearest, limit: null };
}

function nearestAtOrAbove(stacks: readonly Stack[], limit: Tenths): Stack | undefined {
  return thinnest(stacks.filter(({ thickness }) => thickness >= limit)) ?? thickest(stacks);
}

function nearestAtOrBelow(stacks: readonly Stack[], limit: Tenths): Stack | undefined {
  return thickest(stacks.filter(({ thickness }) => thickness <= limit)) ?? thinnest(stacks);
}

function thinnest(stacks: readonly Stack[]): Stack | undefined {
  return first(stacks, (a, b) => a.thickness - b.thickness || handierStack(a, b));
}

function thickest(stacks: readonly Stack[]): Stack | undefined {
  return first(stacks, (a, b) => b.thickness - a.thickness || handierStack(a, b));
}

function first(stacks: readonly Stack[], order: (a: Stack, b: Stack) => number): Stack | undefined {
  return stacks.reduce<Stack | undefined>(
    (best, stack) => (best && order(best, stack) <= 0 ? best : stack),
    undefined,
  );
}
