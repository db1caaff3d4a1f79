import { tenthsFromMm, type Tenths } from '../length/index.ts';
import type { Reading } from './reading.ts';

/**
 * What is known of a length: at least `lo`, at most `hi`, in tenths of a micrometre. `hi` is null where nothing
 * bounds it. `lo` above `hi` means what was found contradicts itself.
 */
export interface Interval {
  readonly lo: Tenths;
  readonly hi: Tenths | null;
}

/** Half the spread of one hand's light drag, in mm, where nothing better is known of the hand. */
export const USUAL_REPEATABILITY_MM = 0.01;

/**
 * Turns a reading into what it proves: the interval the clearance lies in.
 *
 * A blade that goes says the gap is no smaller; one that will not go says it is no larger; one that drags says both,
 * give or take the hand's repeatability. A gauge gives its value, give or take its uncertainty.
 *
 * @param reading lengths in mm
 * @returns the interval in tenths of a micrometre, never starting below 0
 * @example intervalOf({ kind: 'bracket', go: 0.13, noGo: 0.15 }) // { lo: 1300, hi: 1500 }
 */
export function intervalOf(reading: Reading): Interval {
  switch (reading.kind) {
    case 'tries':
      return intervalOfTries(reading.tries, reading.repeatability ?? USUAL_REPEATABILITY_MM);
    case 'bracket':
      return { lo: tenthsFromMm(reading.go), hi: tenthsFromMm(reading.noGo) };
    case 'drag':
      return around(reading.blade, reading.repeatability ?? USUAL_REPEATABILITY_MM);
    case 'value':
      return around(reading.value, reading.uncertainty);
    case 'go-only':
      return { lo: tenthsFromMm(reading.go), hi: null };
    case 'no-go-only':
      return { lo: 0, hi: tenthsFromMm(reading.noGo) };
  }
}

function around(middle: number, spread: number): Interval {
  const [centre, half] = [tenthsFromMm(middle), tenthsFromMm(spread)];
  return { lo: Math.max(0, centre - half), hi: centre + half };
}

function intervalOfTries(
  tries: Extract<Reading, { kind: 'tries' }>['tries'],
  repeatability: number,
): Interval {
  const half = tenthsFromMm(repeatability);
  let lo = 0;
  let hi: number | null = null;
  for (const { thickness, result } of tries) {
    const blade = tenthsFromMm(thickness);
    const [floor, ceiling] = {
      goes: [blade, null],
      wont: [null, blade],
      drags: [blade - half, blade + half],
    }[result] as [number | null, number | null];
    if (floor !== null) lo = Math.max(lo, floor);
    if (ceiling !== null) hi = hi === null ? ceiling : Math.min(hi, ceiling);
  }
  return { lo, hi };
}
