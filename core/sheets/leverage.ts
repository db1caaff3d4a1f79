import { meansFor } from './lashPoints.ts';
import type { GapAt, Means, Pattern, Role } from './pattern.ts';
import { gearParts } from './trainPlaces.ts';

/** How the gap of a role's points hangs on its cam, its pivot and its valve. */
export interface Leverage {
  /** valve arm over cam arm; 1 where nothing lies between them; null where the source does not say */
  readonly rockerRatio: number | null;
  readonly gapAt: GapAt;
  /** where it pivots: between its ends, or at the end of a finger */
  readonly pivot: 'between' | 'end';
  readonly camIn: 'block' | 'head';
  readonly side: 'opening' | 'closing';
}

/**
 * Says how the gap of a role's points hangs on its gear. The gap of a valve that is drawn shut is at the valve.
 *
 * @example leverageOf(pattern, 'intake').gapAt // 'cam', over the pad of a finger whose sheet says so
 */
export function leverageOf(pattern: Pattern, role: Role): Leverage {
  const means = meansFor(pattern, role);
  const { camIn } = gearParts(pattern);
  const side = role.endsWith('closing') ? 'closing' : 'opening';
  if (!('rockerRatio' in means) || (means.kind === 'shim' && means.seat !== 'under-finger'))
    return { rockerRatio: 1, gapAt: 'valve', pivot: 'between', camIn, side };
  return {
    rockerRatio: means.rockerRatio === undefined ? 1 : means.rockerRatio,
    gapAt: side === 'closing' ? 'valve' : gapAtOf(means),
    pivot: isFinger(means) ? 'end' : 'between',
    camIn,
    side,
  };
}

/**
 * Says how much the gap of a role's points changes, where it is measured, for a change of its piece: 1 on a bucket and wherever
 * the gap is taken at the valve; cam arm over valve arm under a finger whose gap is taken at the cam.
 *
 * @example pieceGain(pattern, 'intake') // 0.625, under a finger of ratio 1.6 measured at the cam
 */
export function pieceGain(pattern: Pattern, role: Role): number {
  const { gapAt, rockerRatio } = leverageOf(pattern, role);
  return gapAt === 'cam' ? 1 / (rockerRatio ?? 1) : 1;
}

const isFinger = (means: Means): boolean =>
  (means.kind === 'shim' && means.seat === 'under-finger') ||
  (means.kind === 'screw' && means.end === 'finger-pivot');

/** Where a sheet says the gap is taken; sheets from before it was asked took that of a finger over a shim at the cam. */
function gapAtOf(means: Means): GapAt {
  if ('gapAt' in means && means.gapAt) return means.gapAt;
  return means.kind === 'shim' ? 'cam' : 'valve';
}
