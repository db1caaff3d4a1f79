/** The bolts of a head by their places, in any one unit of length. */
export interface TightenOrderInput {
  readonly bolts: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  /** how far, as a share of the greatest distance, a ring is deep */
  readonly ringTolerance?: number | undefined;
}

/** In which order bolts are tightened, and slackened. */
export interface TightenOrder {
  readonly tighten: readonly string[];
  readonly slacken: readonly string[];
}

const USUAL_TOLERANCE = 0.1;
const TIE = 1e-6;

/**
 * Orders the bolts of a head whose maker gives no order: from the middle outward, ring by ring, each next as far across from
 * the one before as its ring has one. Cam caps are another matter: the maker's order, or all of them drawn down level.
 *
 * Rule: bolts stand in rings by their distance from the middle of all places; a ring is as deep as the tolerance. Slackening
 * is the reverse.
 *
 * @throws RangeError where there is no bolt, or one name twice
 * @example tightenOrder({ bolts: [{ id: 'left', x: 0, y: 0 }, { id: 'middle', x: 40, y: 0 }, { id: 'right', x: 82, y: 0 }] }).tighten[0] // 'middle'
 */
export function tightenOrder({ bolts, ringTolerance = USUAL_TOLERANCE }: TightenOrderInput): TightenOrder {
  if (bolts.length === 0) throw new RangeError('bolts must not be empty');
  if (new Set(bolts.map(({ id }) => id)).size < bolts.length) throw new RangeError('bolts: one name twice');
  const middle = {
    x: bolts.reduce((sum, { x }) => sum + x, 0) / bolts.length,
    y: bolts.reduce((sum, { y }) => sum + y, 0) / bolts.length,
  };
  const placed = bolts.map((bolt, listed) => ({ ...bolt, listed, from: distance(bolt, middle) }));
  const deep = ringTolerance * Math.max(...placed.map(({ from }) => from));
  const rings: (typeof placed)[] = [];
  for (const bolt of placed.toSorted((a, b) => a.from - b.from)) {
    const ring = rings.at(-1);
    if (ring && bolt.from - ring[0]!.from <= deep + TIE / 1000) ring.push(bolt);
    else rings.push([bolt]);
  }
  const order: typeof placed = [];
  for (const ring of rings) {
    const left = ring.toSorted((a, b) => a.listed - b.listed);
    while (left.length > 0) {
      const before = order.at(-1);
      let next = 0;
      if (before)
        for (let index = 1; index < left.length; index += 1)
          if (distance(left[index]!, before) > distance(left[next]!, before) + TIE) next = index;
      order.push(...left.splice(next, 1));
    }
  }
  const tighten = order.map(({ id }) => id);
  return { tighten, slacken: tighten.toReversed() };
}

interface Place {
  readonly x: number;
  readonly y: number;
}

const distance = (a: Place, b: Place) => Math.hypot(a.x - b.x, a.y - b.y);
