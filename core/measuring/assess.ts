import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { intervalOf } from './interval.ts';
import { judge, type Judgement } from './judge.ts';
import type { Reading } from './reading.ts';

/** A reading and the limits it is held against; lengths in mm. */
export interface AssessInput {
  readonly spec: { readonly min: number; readonly max: number };
  readonly reading: Reading;
  readonly limitTolerance?: number | undefined;
  readonly allowOver?: number | undefined;
  /** a hollow is worn in where the blades went, wider than they are */
  readonly hollow?: boolean | undefined;
}

/** What a reading proves, in mm, and how that stands against its limits. */
export interface Assessment extends Judgement {
  readonly lo: number;
  readonly hi: number | null;
  /** something bounds it from below; where nothing does, `lo` is only shown as 0 */
  readonly floor: boolean;
}

/**
 * Says what one reading proves: the interval the clearance lies in, and the verdict.
 *
 * @param input lengths in mm
 * @returns the interval in mm (`hi` null where nothing bounds it) with its verdict
 * @throws RangeError when a length is not a finite number
 * @example
 * assess({ spec: { min: 0.13, max: 0.18 }, reading: { kind: 'bracket', go: 0.15, noGo: 0.18 } })
 * // { lo: 0.15, hi: 0.18, floor: true, verdict: 'in-spec', onLimit: false }
 */
export function assess(input: AssessInput): Assessment {
  const interval = intervalOf(input.reading, input.hollow);
  const judgement = judge(interval, {
    min: tenthsFromMm(input.spec.min),
    max: tenthsFromMm(input.spec.max),
    limitTolerance: tenthsFromMm(input.limitTolerance ?? 0),
    allowOver: tenthsFromMm(input.allowOver ?? 0),
  });
  return {
    lo: mmFromTenths(interval.lo),
    hi: interval.hi === null ? null : mmFromTenths(interval.hi),
    floor: interval.floor,
    ...judgement,
  };
}
