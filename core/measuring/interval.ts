import { tenthsFromMm, type Tenths } from '../length/index.ts';
import type { Reading } from './reading.ts';

/** What is known of a gap, in any unit of length; see `Interval`, which is in tenths of a micrometre. */
export interface KnownGap {
  readonly lo: number;
  readonly hi: number | null;
  /** something bounds it from below; where nothing does, `lo` is only shown as 0. Absent: wherever `lo` is above 0 */
  readonly floor?: boolean | undefined;
}

/**
 * What is known of a length: at least `lo`, at most `hi`, in tenths of a micrometre. `hi` is null where nothing
 * bounds it. `lo` above `hi` means what was found contradicts itself.
 */
export interface Interval extends KnownGap {
  readonly lo: Tenths;
  readonly hi: Tenths | null;
}

/** Half the spread of one hand's light drag, in mm, where nothing better is known of the hand. */
export const USUAL_REPEATABILITY_MM = 0.01;

/**
 * Says whether anything bounds a gap from below. Where no blade went the valve may be held open by any amount, and
 * nothing is worked out from such a reading: no plan, turn, budget, forecast nor sum.
 *
 * @example hasFloor({ lo: 0, floor: false }) // false
 */
export function hasFloor({ lo, floor = lo > 0 }: Pick<KnownGap, 'lo' | 'floor'>): boolean {
  return floor;
}

/** Why nothing may be worked out from a gap: no blade went, nothing bounds it from above, or it contradicts itself. */
export type Unknown = 'no-blade' | 'open' | 'conflict';

/**
 * Says why nothing may be worked out from a gap, in any unit of length; null where it may. Plans, turns, budgets, forecasts and
 * sums all ask here first.
 *
 * @example whyUnknown({ lo: 0, hi: 0.19, floor: false }) // 'no-blade'
 */
export function whyUnknown(gap: KnownGap): Unknown | null {
  if (!hasFloor(gap)) return 'no-blade';
  if (gap.hi === null) return 'open';
  return gap.lo > gap.hi ? 'conflict' : null;
}

/**
 * The gap a reading proves on both sides, which something may be worked out from; null where nothing may.
 *
 * @example boundedGap({ lo: 0.13, hi: 0.15, floor: true }) // { lo: 0.13, hi: 0.15 }
 */
export function boundedGap(gap: KnownGap): { readonly lo: number; readonly hi: number } | null {
  return whyUnknown(gap) === null ? { lo: gap.lo, hi: gap.hi! } : null;
}

/**
 * Turns a reading into what it proves: the interval the clearance lies in.
 *
 * A blade that goes says the gap is no smaller; one that will not go says it is no larger; one that drags says both,
 * give or take the hand's repeatability. A gauge gives its value, give or take its uncertainty. Over a hollow a flat blade
 * bridges the gap: one that will not go, and the upper end of a drag, say nothing there.
 *
 * @param reading lengths in mm
 * @param hollow a hollow is worn in where the blades went
 * @returns the interval in tenths of a micrometre, never starting below 0
 * @example intervalOf({ kind: 'bracket', go: 0.13, noGo: 0.15 }) // { lo: 1300, hi: 1500, floor: true }
 */
export function intervalOf(reading: Reading, hollow = false): Required<Interval> {
  switch (reading.kind) {
    case 'tries':
      return intervalOfTries(reading.tries, reading.repeatability ?? USUAL_REPEATABILITY_MM, hollow);
    case 'bracket':
      return between(reading.go, hollow ? null : reading.noGo);
    case 'drag': {
      const { lo, hi } = around(reading.blade, reading.repeatability ?? USUAL_REPEATABILITY_MM);
      return { lo: Math.max(0, lo), hi: hollow ? null : hi, floor: true };
    }
    case 'value': {
      const { lo, hi } = around(reading.value, reading.uncertainty);
      return { lo: Math.max(0, lo), hi, floor: lo > 0 };
    }
    case 'go-only':
      return between(reading.go, null);
    case 'no-go-only':
      return { lo: 0, hi: hollow ? null : tenthsFromMm(reading.noGo), floor: false };
  }
}

/**
 * Reads a gap that is known in mm as it is reckoned with, in mm/10000.
 *
 * @example gapInTenths({ lo: 0.13, hi: null }) // { lo: 1300, hi: null, floor: undefined }
 */
export function gapInTenths({ lo, hi, floor }: KnownGap): Interval {
  return { lo: tenthsFromMm(lo), hi: hi === null ? null : tenthsFromMm(hi), floor };
}

function between(go: number, noGo: number | null): Required<Interval> {
  const lo = tenthsFromMm(go);
  return { lo, hi: noGo === null ? null : tenthsFromMm(noGo), floor: lo > 0 };
}

function around(middle: number, spread: number): { readonly lo: Tenths; readonly hi: Tenths } {
  const [centre, half] = [tenthsFromMm(middle), tenthsFromMm(spread)];
  return { lo: centre - half, hi: centre + half };
}

function intervalOfTries(
  tries: Extract<Reading, { kind: 'tries' }>['tries'],
  repeatability: number,
  hollow: boolean,
): Required<Interval> {
  let [lo, hi, floor]: [number, number | null, boolean] = [0, null, false];
  for (const { thickness, result } of tries) {
    const blade = tenthsFromMm(thickness);
    const half = result === 'drags' ? tenthsFromMm(repeatability) : 0;
    if (result !== 'wont') {
      floor = true;
      lo = Math.max(lo, blade - half);
    }
    if (result !== 'goes' && !hollow) hi = Math.min(hi ?? Infinity, blade + half);
  }
  return { lo, hi, floor };
}
