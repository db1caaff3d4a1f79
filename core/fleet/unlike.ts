import { normalBelow } from './normal.ts';

/** How fast each point of one engine moves, with its standard error. */
export interface UnlikeInput {
  readonly points: readonly { readonly key: string; readonly perUnit: number; readonly se: number }[];
  /** how far points of one engine differ where nothing is wrong */
  readonly betweenSd: number;
  /** the share of sound engines that may be accused */
  readonly alpha: number;
}

/** Each point with how far it stands from the others, and whether it moves unlike them. */
export interface Unlike {
  readonly points: readonly { readonly key: string; readonly z: number | null; readonly unlike: boolean }[];
}

/** Under so many points nobody can be called odd. */
const LEAST_LEFT = 3;

/**
 * Names the points that move unlike their neighbours.
 *
 * Rule: each point against the weighted mean of the others; the farthest is named where that is rarer than the share allowed
 * over all points, then left out and the rest looked at again, so that one odd valve accuses no other.
 *
 * @throws RangeError where a point's se and betweenSd are both 0
 * @example unlike(given('unlike')).points.map(({ key }) => key) // ['1E', '2E']
 */
export function unlike({ points, betweenSd, alpha }: UnlikeInput): Unlike {
  const variances = points.map(({ se }) => se ** 2 + betweenSd ** 2);
  if (variances.some((variance) => !(variance > 0))) throw new RangeError('points: each se must be above 0');
  const last = new Map<number, number>();
  const named = new Set<number>();
  let left = points.map((_, index) => index);
  while (left.length >= LEAST_LEFT) {
    for (const index of left)
      last.set(
        index,
        standsFrom(
          index,
          left.filter((other) => other !== index),
        ),
      );
    const farthest = left.reduce((best, index) =>
      Math.abs(last.get(index)!) > Math.abs(last.get(best)!) ? index : best,
    );
    const rarity = 2 * normalBelow(-Math.abs(last.get(farthest)!));
    if (rarity >= alpha / points.length) break;
    named.add(farthest);
    left = left.filter((index) => index !== farthest);
  }
  return {
    points: points.map(({ key }, index) => ({
      key,
      z: last.get(index) ?? null,
      unlike: named.has(index),
    })),
  };

  function standsFrom(index: number, others: readonly number[]): number {
    const weights = others.map((other) => 1 / variances[other]!);
    const whole = weights.reduce((all, one) => all + one, 0);
    const mean = others.reduce((all, other, at) => all + weights[at]! * points[other]!.perUnit, 0) / whole;
    return (points[index]!.perUnit - mean) / Math.sqrt(variances[index]! + 1 / whole);
  }
}
