import type { GapAt } from '../sheets/index.ts';

/** What may be done to a head or a cam that moves a clearance, and how its effect is worked out. */
export const HEAD_OPERATIONS = {
  'seat-cut': { end: 'valve', opens: -1, closing: 1 },
  'face-cut': { end: 'valve', opens: -1, closing: 1 },
  'seat-raised': { end: 'valve', opens: 1, closing: -1 },
  'tip-grind': { end: 'valve', opens: 1, closing: 0 },
  'stem-longer': { end: 'valve', opens: -1, closing: 0 },
  'groove-higher': { end: 'valve', opens: 0, closing: 1 },
  'groove-lower': { end: 'valve', opens: 0, closing: -1 },
  'shim-thicker': { end: 'valve', opens: -1, closing: -1 },
  'crown-thicker': { end: 'valve', opens: -1, closing: null },
  'base-circle-smaller': { end: 'cam', opens: 1, closing: null },
  'follower-thicker': { end: 'cam', opens: -1, closing: null },
  'pushrod-longer': { end: 'cam', opens: -1, closing: null, camIn: 'block' },
  'head-skim': { end: 'cam', opens: -1, closing: null, camIn: 'block' },
  'gasket-thicker': { end: 'cam', opens: 1, closing: null, camIn: 'block' },
  'carrier-skim': { end: 'cam', opens: -1, closing: null, camIn: 'head' },
  'carrier-gasket-thicker': { end: 'cam', opens: 1, closing: null, camIn: 'head' },
  'pivot-higher': { end: 'pivot', opens: 1, closing: null },
} as const satisfies Readonly<
  Record<
    string,
    {
      readonly end: 'valve' | 'cam' | 'pivot';
      /** how a millimetre of it moves the gap of an opening side, at its own end */
      readonly opens: 1 | -1 | 0;
      /** the same of a closing side; null where it is not known to move one */
      readonly closing: 1 | -1 | 0 | null;
      /** where the cam has to be for it to touch the gap at all */
      readonly camIn?: 'block' | 'head';
    }
  >
>;

/** An operation of the head work. */
export type HeadOperation = keyof typeof HEAD_OPERATIONS;

/** One step of the head work; mm. A cut may be given across its own face, with the angle of that face. */
export interface HeadStep {
  readonly kind: HeadOperation;
  readonly depth?: number | undefined;
  /** mm across the seat or face itself */
  readonly normalDepth?: number | undefined;
  /** degrees of the seat from the head's face */
  readonly seatAngle?: number | undefined;
}

/** A gap as it is, and what is to be done. Lengths in mm. */
export interface LashBudgetInput {
  readonly lo: number;
  readonly hi: number;
  readonly steps: readonly HeadStep[];
  /** valve arm over cam arm; 1 where there is no rocker */
  readonly rockerRatio?: number | undefined;
  /** where the gap is measured: at the valve, or at the cam over a finger's pad */
  readonly gapAt?: GapAt | undefined;
  /** where it pivots: between its ends, or at the end of a finger; between, if absent and the gap is at the valve */
  readonly pivot?: 'between' | 'end' | undefined;
  readonly camIn?: 'block' | 'head' | undefined;
  readonly side?: 'opening' | 'closing' | undefined;
  /** the shim that is in at the end */
  readonly installed?: number | undefined;
  readonly target?: number | undefined;
  readonly sizes?: { readonly min: number; readonly max: number } | undefined;
}

/** What the work does to the gap, step by step and in all, and the shim that brings it back. Lengths in mm. */
export interface LashBudget {
  readonly effects: readonly number[];
  readonly lo: number;
  readonly hi: number;
  readonly neededShim?: number;
  readonly fits?: boolean;
  /** how far the shim that is needed is under the thinnest that is made */
  readonly underThinnest?: number;
  readonly beyondThickest?: number;
}

const ON_BOUNDARY = 1e-9;

/**
 * Works out what head and cam work does to a clearance, before anybody cuts, and the shim that will bring it to its target.
 *
 * Rule: what moves the valve's end moves the gap by itself, what moves the cam's end through the rocker; a pivot between the
 * two moves both, and opens the gap as it goes up; one at the end of a finger closes it, for its pad is pushed against the cam.
 * A valve that is drawn shut hangs by the groove of its stem: one that lies higher lifts what its closing rocker pulls at.
 * Where the gap is measured at the cam everything is seen through the rocker the other way. Effects are not rounded, and a gap
 * may fall below 0: the valve is then held open.
 *
 * @throws RangeError where a step does not touch the gap of such an engine, or has neither depth, or it is not said where
 * the pivot of a gear is whose gap is at the cam
 * @example lashBudget({ lo: 0.14, hi: 0.15, steps: [{ kind: 'seat-cut', depth: 0.11 }] }).hi // 0.04
 */
export function lashBudget(input: LashBudgetInput): LashBudget {
  const { lo, hi, steps, rockerRatio = 1, installed, target, sizes } = input;
  if (!(rockerRatio > 0)) throw new RangeError('rockerRatio must be above 0');
  if (hi < lo) throw new RangeError('hi must not be below lo');
  const effects = steps.map((step, index) => effectOf(step, index, input));
  const sum = effects.reduce((all, one) => all + one, 0);
  const after = { effects, lo: lo + sum, hi: hi + sum };
  if (installed === undefined || target === undefined) return after;
  const gain = placeOf(input) === 'cam' ? 1 / rockerRatio : 1;
  const neededShim = installed + ((after.lo + after.hi) / 2 - target) / gain;
  if (!sizes) return { ...after, neededShim };
  const underThinnest = short(sizes.min - neededShim);
  const beyondThickest = short(neededShim - sizes.max);
  return { ...after, neededShim, fits: underThinnest + beyondThickest === 0, underThinnest, beyondThickest };
}

/** How far something is missed by; what lies on the boundary is not. */
const short = (by: number) => (by > ON_BOUNDARY ? by : 0);

function effectOf(step: HeadStep, index: number, input: LashBudgetInput): number {
  const { camIn = 'block', side = 'opening' } = input;
  const operation: {
    readonly end: 'valve' | 'cam' | 'pivot';
    readonly opens: number;
    readonly closing: number | null;
    readonly camIn?: 'block' | 'head';
  } = HEAD_OPERATIONS[step.kind];
  if (operation.camIn !== undefined && operation.camIn !== camIn)
    throw new RangeError(
      `steps.${index}.kind: with the cam in the ${camIn} ${step.kind} does not touch the clearance; look at the valve timing and at the room over the piston`,
    );
  const way = side === 'closing' ? operation.closing : operation.opens;
  if (way === null)
    throw new RangeError(`steps.${index}.kind: what ${step.kind} does to a closing side is not known`);
  const through = throughGear(operation.end, index, input);
  return way * through * depthOf(step, index) + 0;
}

/** Where a gap is taken: the one of a valve that is drawn shut always at the valve. */
const placeOf = ({ gapAt = 'valve', side }: Pick<LashBudgetInput, 'gapAt' | 'side'>): GapAt =>
  side === 'closing' ? 'valve' : gapAt;

/** What a millimetre at one end comes to where the gap is taken. */
function throughGear(end: 'valve' | 'cam' | 'pivot', index: number, input: LashBudgetInput): number {
  const { rockerRatio: ratio = 1, pivot } = input;
  const at = placeOf(input);
  if (end === 'valve') return at === 'cam' ? 1 / ratio : 1;
  if (end === 'cam') return at === 'cam' ? 1 : ratio;
  if (at === 'cam' && pivot === undefined)
    throw new RangeError(`steps.${index}.kind: say whether the pivot is between the ends or at the end`);
  const moved = pivot === 'end' ? 1 - ratio : 1 + ratio;
  return at === 'cam' ? moved / ratio : moved;
}

/** How far a step moves its end along its axis. */
function depthOf({ kind, depth, normalDepth, seatAngle }: HeadStep, index: number): number {
  if (normalDepth === undefined) {
    if (depth === undefined) throw new RangeError(`steps.${index}.depth: is missing`);
    return depth;
  }
  if (kind !== 'seat-cut' && kind !== 'face-cut')
    throw new RangeError(`steps.${index}.normalDepth: only a seat or a face is cut at an angle`);
  if (depth !== undefined) throw new RangeError(`steps.${index}.depth: say it one way, not both`);
  if (seatAngle === undefined || !(seatAngle >= 0 && seatAngle < 90))
    throw new RangeError(`steps.${index}.seatAngle: must be from 0 to under 90`);
  return normalDepth / Math.cos((seatAngle * Math.PI) / 180);
}
