/** One piece that a plan puts in: at which point, and which point it comes out of, where it comes out of one. */
export interface PlannedMove {
  readonly key: string;
  /** null where the piece comes from the drawer, or is bought */
  readonly from: string | null;
}

/** A move in the order it is made. */
export interface OrderedMove extends PlannedMove {
  /** what is in the point is taken out first, and waits beside it until the ring it belongs to closes */
  readonly waits: boolean;
}

/**
 * Orders the moves of a plan so that never more than one piece waits loose: each place is filled by what the next one gives
 * up. A swap in a ring begins with one piece laid aside, which fills the ring's last place.
 *
 * Rule: a point whose piece goes nowhere is filled first, then the one its piece came out of, and so on; what is left are rings.
 *
 * @throws RangeError where one piece is wanted at two points, or one point is filled twice
 * @example moveOrder([{ key: '1I', from: '2I' }, { key: '2I', from: null }]).map(({ key }) => key) // ['1I', '2I']
 */
export function moveOrder(moves: readonly PlannedMove[]): readonly OrderedMove[] {
  const byKey = new Map(moves.map((move) => [move.key, move]));
  const takes = new Map(moves.flatMap((move) => (move.from === null ? [] : [[move.from, move.key]])));
  const shared = moves.filter(({ from }) => from !== null).length;
  if (byKey.size < moves.length) throw new RangeError('moves: one point is filled twice');
  if (takes.size < shared) throw new RangeError('moves: one piece is wanted twice');
  const order: OrderedMove[] = [];
  const done = new Set<string>();
  const follow = (first: string, waits: boolean) => {
    let key: string | null = first;
    while (key !== null && !done.has(key)) {
      const move: PlannedMove | undefined = byKey.get(key);
      if (!move) return;
      done.add(key);
      order.push({ ...move, waits: waits && key === first });
      key = move.from;
    }
  };
  for (const { key } of moves) if (!takes.has(key)) follow(key, false);
  for (const { key } of moves) follow(key, true);
  return order;
}
