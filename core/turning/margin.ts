import type { Pattern } from '../sheets/pattern.ts';

/** Crank degrees a flank takes for each millimetre of lift, at the gentlest that is made. */
const DEGREES_A_MM = 25;

/** More than this a flank never adds: above it a lift is no lift at the edge of the ramp. */
const MOST_ADDED = 40;

/**
 * Says how many crank degrees are kept clear of both ramps: what the sheet says, and more where its valve timing was given at
 * a lift, because the follower leaves its base circle before the valve is lifted that far.
 *
 * Rule: 25° for each millimetre, 40° at the most; the gentlest flank there is, so that it is never too little.
 *
 * @returns crank degrees
 * @example marginOf({ ...pattern, margin: 15, timing: { ...timing, lift: 1 } }) // 40
 */
export function marginOf({ margin, timing }: Pick<Pattern, 'margin' | 'timing'>): number {
  return margin + Math.min(MOST_ADDED, (timing.lift ?? 0) * DEGREES_A_MM);
}
