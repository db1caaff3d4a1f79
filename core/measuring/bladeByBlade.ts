import { tenthsFromMm } from '../length/index.ts';
import type { GoNoGo } from './goNoGo.ts';
import type { Try } from './reading.ts';

/** A point that is felt at a stop by two blades: the two, and what they did there so far. */
export interface PointByBlades {
  readonly key: string;
  readonly pair: GoNoGo;
  readonly tries: readonly Try[];
}

/** A point, and the blade that comes next there: mm. */
export interface BladeAtPoint {
  readonly key: string;
  readonly thickness: number;
}

/**
 * Says which point of a stop comes next where one blade is taken over all of them before the next blade is taken up: the next one
 * round that waits for the blade in the hand, else the first that waits for any.
 *
 * Blades of one thickness are one blade: what must not go at an intake may be what must go at an exhaust.
 *
 * @param points of the stop, in the order in which they are felt
 * @param held mm in the hand; null where nothing is
 * @param from the point that was felt last
 * @returns null where no point waits for a blade: what failed at its first one is decided
 * @example nextByBlade([{ key: '1I', pair: goNoGo({ blades: [0.2, 0.25], maxStack: 1, spec: { min: 0.2, max: 0.25 } }), tries: [] }], null, null)?.key // '1I'
 */
export function nextByBlade(
  points: readonly PointByBlades[],
  held: number | null,
  from: string | null,
): BladeAtPoint | null {
  const waiting = points.flatMap((point) => {
    const thickness = waitsFor(point);
    return thickness === null ? [] : [{ key: point.key, thickness }];
  });
  const order = points.map(({ key }) => key);
  const begin = from === null ? 0 : order.indexOf(from) + 1;
  const after = ({ key }: BladeAtPoint) => (order.indexOf(key) - begin + order.length) % order.length;
  const forThisBlade = waiting.filter(({ thickness }) => held !== null && isSame(thickness, held));
  return forThisBlade.sort((a, b) => after(a) - after(b))[0] ?? waiting[0] ?? null;
}

/** mm; null once both blades answered, or the first said all. */
function waitsFor({ pair: { go, noGo }, tries }: PointByBlades): number | null {
  const answer = (thickness: number) => tries.find((one) => isSame(one.thickness, thickness))?.result;
  if (answer(go.thickness) === undefined) return go.thickness;
  return answer(go.thickness) === 'goes' && answer(noGo.thickness) === undefined ? noGo.thickness : null;
}

const isSame = (a: number, b: number) => tenthsFromMm(a) === tenthsFromMm(b);
