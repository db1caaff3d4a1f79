import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { handierStack, stacksOf } from './bladeStack.ts';
import type { HeldBlades } from './goNoGo.ts';

/** How near a bench's blades come to one limit of a band. */
export interface LimitReach {
  /** mm, the limit */
  readonly at: number;
  /** the stack inside the band that lies nearest the limit; null where there is none */
  readonly by: HeldBlades | null;
  /** mm between the two: a gap that lies there is in its band, and cannot be shown to be */
  readonly short: number;
  /** settled, near enough to be worked with, or not at all */
  readonly reach: 'exact' | 'near' | 'not';
}

/** A gap nearer the limit than this share of the band costs no more than a second look. */
const NEAR_SHARE = 0.25;

/**
 * Says how near a bench's blades come to both limits of a band, before an engine is opened to find it out.
 *
 * Rule: a point is shown to be in its band by a stack at or above its least clearance that goes, and one at or under its
 * greatest that does not. What lies between a limit and the nearest such stack stays undecided. Within a quarter of the band
 * that can be worked with; beyond it, and where no stack lies in the band, a blade is to be had.
 *
 * @param input blades as thick as they are, and limits, in mm
 * @example benchReach({ blades: [0.05, 0.1], maxStack: 1, spec: { min: 0.02, max: 0.04 } }).min.reach // 'not'
 */
export function benchReach(input: {
  readonly blades: readonly number[];
  readonly maxStack: number;
  readonly spec: { readonly min: number; readonly max: number };
}): { readonly min: LimitReach; readonly max: LimitReach } {
  const [min, max] = [tenthsFromMm(input.spec.min), tenthsFromMm(input.spec.max)];
  const inside = stacksOf(input.blades.map(tenthsFromMm), input.maxStack)
    .filter(({ thickness }) => thickness > 0 && thickness >= min && thickness <= max)
    .sort((a, b) => a.thickness - b.thickness || handierStack(a, b));
  const reachOf = (limit: number, nearest: (typeof inside)[number] | undefined): LimitReach => {
    // with no stack in it the whole band stays undecided
    const short = nearest ? Math.abs(nearest.thickness - limit) : max - min;
    const near = nearest !== undefined && short <= NEAR_SHARE * (max - min);
    return {
      at: mmFromTenths(limit),
      by: nearest
        ? { blades: nearest.blades.map(mmFromTenths), thickness: mmFromTenths(nearest.thickness) }
        : null,
      short: mmFromTenths(short),
      reach: short === 0 ? 'exact' : near ? 'near' : 'not',
    };
  };
  const thickest = inside.at(-1)?.thickness;
  return {
    min: reachOf(min, inside[0]),
    max: reachOf(
      max,
      inside.find(({ thickness }) => thickness === thickest),
    ),
  };
}
