import { gearParts, meansFor, type Pattern } from '../sheets/index.ts';
import { HEAD_OPERATIONS, lashBudget, type HeadOperation } from './lashBudget.ts';

/** One operation at one valve, planned, and done as it was measured. Lengths in mm. */
export interface HeadWorkLine {
  /** one piece of work may be done at several valves; they share its name */
  readonly step: string;
  readonly valve: string;
  readonly operation: HeadOperation;
  readonly depth: number | null;
  /** mm across the seat or face itself, with the angle of that face */
  readonly normalDepth: number | null;
  readonly seatAngle: number | null;
  /** along the valve's axis, as it was measured when it was done */
  readonly done: number | null;
  /** planned no more */
  readonly dropped: boolean;
}

/** Operations in a person's words, in the order they are done. */
export const OPERATION_WORDS: Readonly<Record<HeadOperation, string>> = {
  'seat-raised': 'New seat that lets the valve lie lower',
  'seat-cut': 'Seat cut',
  'face-cut': 'Valve face cut',
  'tip-grind': 'Tip ground',
  'stem-longer': 'Longer stem',
  'groove-higher': 'New stem, its groove higher',
  'groove-lower': 'New stem, its groove lower',
  'crown-thicker': 'Thicker bucket crown',
  'follower-thicker': 'Thicker follower',
  'pushrod-longer': 'Longer pushrod',
  'base-circle-smaller': 'Cam reground, base circle smaller',
  'pivot-higher': 'Pivot higher',
  'carrier-skim': 'Cam carrier skimmed',
  'carrier-gasket-thicker': 'Thicker gasket under the carrier',
  'head-skim': 'Head skimmed',
  'gasket-thicker': 'Thicker head gasket',
  'shim-thicker': 'Thicker shim',
};

/** Operations in the order they are done. */
export const OPERATION_ORDER = Object.keys(OPERATION_WORDS) as HeadOperation[];

/**
 * Lists the head and cam work that touches the gaps of a kind of engine. A head that is skimmed with its cam in it moves none:
 * that is a matter of valve timing and of the room over the piston.
 *
 * @example operationsFor(pattern).includes('head-skim') // false, with the cam in the head
 */
export function operationsFor(pattern: Pattern): readonly HeadOperation[] {
  const { camIn, rockers, pushrods, followers } = gearParts(pattern);
  const bucket = (['intake', 'exhaust'] as const).some((role) => meansFor(pattern, role).kind === 'bucket');
  const graded = (['intake', 'exhaust'] as const).some((role) => 'sizes' in meansFor(pattern, role));
  return OPERATION_ORDER.filter((kind) => {
    const operation = HEAD_OPERATIONS[kind];
    if ('camIn' in operation && operation.camIn !== camIn) return false;
    if (kind === 'groove-higher' || kind === 'groove-lower') return pattern.closingSide;
    if (kind === 'crown-thicker') return bucket;
    if (kind === 'shim-thicker') return graded;
    if (kind === 'pushrod-longer') return pushrods;
    if (kind === 'pivot-higher') return rockers;
    return kind !== 'follower-thicker' || followers || rockers;
  });
}

/**
 * Says how far a step moves its end along its axis: as it was measured, or as it is planned.
 *
 * @example alongAxis({ operation: 'seat-cut', depth: null, normalDepth: 0.1, seatAngle: 45, done: null }) // 0.1414
 */
export function alongAxis({ operation, depth, normalDepth, seatAngle, done }: HeadWorkLine): number {
  if (done !== null) return done;
  if (normalDepth === null || seatAngle === null) return depth ?? 0;
  const { effects } = lashBudget({
    lo: 0,
    hi: 0,
    steps: [{ kind: operation, normalDepth, seatAngle }],
  });
  return Math.abs(effects[0]!);
}
