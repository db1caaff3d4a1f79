import { moveOrder, pieceSystem, shimPlan, type PlannedMove } from '@zero-lash/core/setting';
import type { Means } from '@zero-lash/core/sheets';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inlineFour, inlineSix } from './patterns.ts';

/** Makes a plan's moves as a person does: takes out, puts in; gives what is in each place and how many waited at once. */
function makeMoves(moves: readonly PlannedMove[], places: readonly string[]) {
  const isIn = new Map<string, string | null>(places.map((place) => [place, `of ${place}`]));
  const loose = new Set<string>();
  let mostLoose = 0;
  const needed = new Set(moves.flatMap(({ from }) => (from === null ? [] : [`of ${from}`])));
  for (const { key, from } of moveOrder(moves)) {
    const own = isIn.get(key) ?? null;
    isIn.set(key, null);
    if (own !== null && needed.has(own)) loose.add(own);
    const piece = from === null ? `new at ${key}` : `of ${from}`;
    if (from !== null && !loose.delete(piece)) {
      expect(isIn.get(from)).toBe(piece);
      isIn.set(from, null);
    }
    isIn.set(key, piece);
    needed.delete(piece);
    mostLoose = Math.max(mostLoose, loose.size);
  }
  return { isIn, mostLoose };
}

/** Any plan over some places: each filled from another, from the drawer, or left alone; no piece wanted twice. */
const plans = fc
  .integer({ min: 1, max: 12 })
  .chain((count) => {
    const places = Array.from({ length: count }, (_, index) => `p${index}`);
    return fc.record({
      places: fc.constant(places),
      givers: fc.shuffledSubarray(places, { minLength: count }),
      kinds: fc.array(fc.constantFrom('given', 'drawer', 'left'), { minLength: count, maxLength: count }),
    });
  })
  .map(({ places, givers, kinds }) => {
    const moves = places.flatMap((key, index): PlannedMove[] => {
      const from = givers[index]!;
      if (kinds[index] === 'left' || (kinds[index] === 'given' && from === key)) return [];
      return [{ key, from: kinds[index] === 'given' ? from : null }];
    });
    // a piece is given only by a place that gets another
    const filled = new Set(moves.map(({ key }) => key));
    return {
      places,
      moves: moves.map((move) =>
        move.from !== null && !filled.has(move.from) ? { ...move, from: null } : move,
      ),
    };
  });

describe('the order of a plan’s moves', () => {
  it('fills every place as planned, and never has more than one piece waiting', () => {
    fc.assert(
      fc.property(plans, ({ places, moves }) => {
        const { isIn, mostLoose } = makeMoves(moves, places);
        for (const { key, from } of moves)
          expect(isIn.get(key)).toBe(from === null ? `new at ${key}` : `of ${from}`);
        expect(mostLoose).toBeLessThanOrEqual(1);
        expect(
          moveOrder(moves)
            .map(({ key }) => key)
            .sort(),
        ).toEqual(moves.map(({ key }) => key).sort());
      }),
      { numRuns: 400 },
    );
  });

  it('lays one piece aside for a ring, and none for a chain', () => {
    const ring = [
      { key: '1I', from: '2I' },
      { key: '2I', from: '3I' },
      { key: '3I', from: '1I' },
    ];
    expect(moveOrder(ring).map(({ key, waits }) => [key, waits])).toEqual([
      ['1I', true],
      ['2I', false],
      ['3I', false],
    ]);
    const chain = [
      { key: '2I', from: null },
      { key: '1I', from: '2I' },
    ];
    expect(moveOrder(chain).map(({ key, waits }) => [key, waits])).toEqual([
      ['1I', false],
      ['2I', false],
    ]);
  });

  it('is refused where one piece is wanted twice, or one point filled twice', () => {
    const twice = (from: string) => [
      { key: '1I', from },
      { key: '2I', from },
    ];
    expect(() => moveOrder(twice('3I'))).toThrow('one piece is wanted twice');
    expect(() =>
      moveOrder([
        { key: '1I', from: null },
        { key: '1I', from: null },
      ]),
    ).toThrow('filled twice');
  });
});

describe('a system of pieces', () => {
  it('is of one kind, seat and diameter; a screw is none', () => {
    expect(pieceSystem(inlineFour.means)).toEqual({ key: 'bucket', title: 'Graded buckets' });
    const shim: Extract<Means, { kind: 'shim' }> = {
      ...{ kind: 'shim', seat: 'under-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 9.5 },
      ...{ marking: '', seatOffset: null },
    };
    expect(pieceSystem(shim)).toEqual({
      key: 'shim under-bucket 9.5',
      title: 'Shims under buckets, 9.5 mm',
    });
    expect(pieceSystem({ ...shim, diameter: 8 })?.key).not.toBe(pieceSystem(shim)?.key);
    expect(
      pieceSystem({ kind: 'pivot-nut', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: null }),
    ).toBeNull();
    expect(pieceSystem(inlineSix.means)).not.toBeNull();
  });
});

describe('a point whose shim is in under another valve already', () => {
  const at = (key: string, gap: number, gone = false) => ({
    ...{ key, lo: gap, hi: gap, installed: 2.5, min: 0.2, max: 0.3, target: 0.25, gone },
  });
  it('is filled whatever it read, and has nothing to give', () => {
    const plan = shimPlan({
      points: [at('1I', 0.25, true), at('2I', 0.25)],
      stock: [],
      orderable: [{ thickness: 2.5, price: 3 }],
      change: { rule: 'out-of-spec' },
    });
    expect(plan.assignments).toMatchObject([
      { key: '1I', touched: true, source: 'order', thickness: 2.5 },
      { key: '2I', touched: false },
    ]);
    expect(plan.leftOver).toEqual([]);
  });
});
