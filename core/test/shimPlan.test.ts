import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastAssignment, shimPlan, type Cost, type ShimPlanInput } from '../setting/index.ts';

const isLess = (a: Cost, b: Cost) => {
  const at = a.findIndex((figure, index) => figure !== b[index]);
  return at >= 0 && a[at]! < b[at]!;
};
const plus = (a: Cost, b: Cost) => a.map((figure, index) => figure + b[index]!);

/** The least of every way there is. */
function leastOfAll(costs: readonly (readonly (Cost | null)[])[], depth: number): Cost | null {
  const from = (row: number, used: ReadonlySet<number>): Cost | null => {
    if (row === costs.length) return Array<number>(depth).fill(0);
    let best: Cost | null = null;
    costs[row]!.forEach((cost, column) => {
      if (cost === null || used.has(column)) return;
      const rest = from(row + 1, new Set([...used, column]));
      const whole = rest && plus(cost, rest);
      if (whole && (!best || isLess(whole, best))) best = whole;
    });
    return best;
  };
  return from(0, new Set());
}

describe('an assignment', () => {
  const cost = fc.option(fc.array(fc.nat(3), { minLength: 3, maxLength: 3 }), { freq: 5 });
  const table = fc.integer({ min: 1, max: 4 }).chain((rows) =>
    fc.array(fc.array(cost, { minLength: rows + 1, maxLength: rows + 1 }), {
      minLength: rows,
      maxLength: rows,
    }),
  );

  it('costs the least there is, figure by figure, and gives nobody what they may not have', () => {
    fc.assert(
      fc.property(table, (costs) => {
        const best = leastOfAll(costs, 3);
        if (best === null) {
          expect(() => leastAssignment(costs)).toThrow(RangeError);
          return;
        }
        const columns = leastAssignment(costs);
        expect(new Set(columns).size).toBe(costs.length);
        const whole = columns.reduce<Cost>((sum, column, row) => plus(sum, costs[row]![column]!), [0, 0, 0]);
        expect(whole).toEqual(best);
      }),
      { numRuns: 300 },
    );
  });

  it('of nothing is nothing, and there are never fewer columns than rows', () => {
    expect(leastAssignment([])).toEqual([]);
    expect(() => leastAssignment([[[1]], [[2]]])).toThrow(RangeError);
  });
});

const band = { min: 0.11, max: 0.19, target: 0.15 };
const point = (key: string, lo: number, installed: number) => ({
  key,
  lo,
  hi: lo + 0.01,
  installed,
  ...band,
});
const plan = (input: Partial<ShimPlanInput>) =>
  shimPlan({ points: [], stock: [], orderable: [], change: { rule: 'out-of-spec' }, ...input });

describe('a shim plan', () => {
  const hundredth = fc.integer({ min: 0, max: 12 }).map((steps) => 2.3 + steps * 0.025);
  const someInput = fc.record({
    points: fc
      .array(fc.record({ lo: fc.integer({ min: 2, max: 40 }), installed: hundredth }), {
        minLength: 1,
        maxLength: 4,
      })
      .map((points) => points.map(({ lo, installed }, index) => point(`${index + 1}I`, lo / 100, installed))),
    stock: fc.array(fc.record({ thickness: hundredth, qty: fc.integer({ min: 0, max: 2 }) }), {
      maxLength: 2,
    }),
    orderable: fc.array(fc.record({ thickness: hundredth, price: fc.constantFrom(5, 6.5, 9) }), {
      maxLength: 3,
    }),
    reuseRemoved: fc.boolean(),
    guard: fc.constantFrom(0, 0.004, 0.5),
    change: fc.constantFrom(
      { rule: 'out-of-spec' } as const,
      { rule: 'off-target', by: 0.02 } as const,
      { rule: 'all' } as const,
    ),
  });

  it('is never dearer, figure by figure, than leaving any one choice otherwise', () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const { totals, assignments } = shimPlan(input);
        const told = [totals.unsolved, totals.uncertain, totals.price, totals.deviation];
        // every piece is used once at the most
        const removed = assignments.flatMap(({ source, from }) => (source === 'removed' ? [from] : []));
        expect(new Set(removed).size).toBe(removed.length);
        const keepers = assignments.filter(({ source }) => source === 'keep').map(({ key }) => key);
        expect(removed.filter((key) => keepers.includes(key!))).toEqual([]);
        // and no plan in which one point more is kept as it is does better
        for (const { key } of input.points) {
          const { totals: other } = shimPlan({ ...input, keep: [key] });
          const own = assignments.find((assignment) => assignment.key === key)!;
          if (own.source !== 'keep' || !own.touched) continue;
          const { lo, hi } = own;
          const deviation = other.deviation + Math.abs((lo! + hi!) / 2 - band.target);
          const uncertain = other.uncertain + (own.status === 'likely' ? 1 : 0);
          expect(told[0]).toBeLessThanOrEqual(other.unsolved);
          if (told[0] === other.unsolved) expect(told[1]).toBeLessThanOrEqual(uncertain);
          if (told[0] === other.unsolved && told[1] === uncertain)
            expect(told[2]).toBeLessThanOrEqual(other.price + 1e-9);
          if (told[0] === other.unsolved && told[1] === uncertain && told[2] === other.price)
            expect(told[3]).toBeLessThanOrEqual(deviation + 1e-9);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('says of each point truly what its shim leaves, certain only where the whole of it is inside', () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const guard = Math.min(input.guard, (band.max - band.min) / 4);
        for (const { key, thickness, lo, hi, status } of shimPlan(input).assignments) {
          const measured = input.points.find((one) => one.key === key)!;
          if (thickness === null) continue;
          expect(lo).toBeCloseTo(measured.lo + measured.installed - thickness, 9);
          expect(hi).toBeCloseTo(measured.hi + measured.installed - thickness, 9);
          const inside = lo! >= band.min + guard - 1e-9 && hi! <= band.max - guard + 1e-9;
          expect(status === 'certain').toBe(inside);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('finds the shim that is already in the engine under another valve', () => {
    const { totals, assignments, leftOver } = plan({
      points: [point('1I', 0.045, 2.5), point('2I', 0.245, 2.4)],
    });
    expect(assignments.map(({ key, source, from }) => [key, source, from])).toEqual([
      ['1I', 'removed', '2I'],
      ['2I', 'removed', '1I'],
    ]);
    expect(totals).toMatchObject({ unsolved: 0, ordered: 0, price: 0, changed: 2 });
    expect(leftOver).toEqual([]);
  });

  it('takes a stock piece once, buys what is not there, and says what is left over', () => {
    const { totals, assignments, orders, leftOver } = plan({
      points: [point('1I', 0.045, 2.5), point('2I', 0.045, 2.5)],
      stock: [{ thickness: 2.4, qty: 1 }],
      orderable: [{ thickness: 2.4, price: 7 }],
    });
    expect(assignments.map(({ source }) => source).sort()).toEqual(['order', 'stock']);
    expect(orders).toEqual([{ thickness: 2.4, qty: 1, price: 7 }]);
    expect(totals.price).toBe(7);
    expect(leftOver.map(({ from }) => from).sort()).toEqual(['1I', '2I']);
  });

  it('leaves alone what it is told to keep, and refuses points that are not there', () => {
    const points = [point('1I', 0.045, 2.5)];
    expect(plan({ points, keep: ['1I'] }).assignments[0]).toMatchObject({ source: 'keep', touched: false });
    expect(plan({ points, keep: ['1I'] }).totals.unsolved).toBe(0);
    expect(() => plan({ points, keep: ['9E'] })).toThrow(RangeError);
    expect(() => plan({ points, without: [{ key: '9E', thickness: 2.5 }] })).toThrow(RangeError);
    expect(() => plan({ points: [...points, ...points] })).toThrow(RangeError);
    expect(plan({}).totals).toEqual({
      ...{ unsolved: 0, uncertain: 0, ordered: 0, price: 0, deviation: 0, changed: 0 },
    });
  });
});
