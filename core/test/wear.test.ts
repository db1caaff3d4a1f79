import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tightenOrder, torque, TORQUE_UNITS } from '../assembly/index.ts';
import { HEAD_OPERATIONS, lashBudget, type HeadOperation } from '../headwork/index.ts';
import { gradeOf, shareUsed, WEAR_FEATURES, wearRate, worstOf } from '../wear/index.ts';

const mm = fc.integer({ min: 0, max: 2000 }).map((thousandths) => thousandths / 1000);

describe('a grade', () => {
  it('never improves as a figure goes from new to its limit and beyond', () => {
    const order = ['keep', 'watch', 'replace'];
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (used, more) => {
          expect(order.indexOf(gradeOf(used + more))).toBeGreaterThanOrEqual(order.indexOf(gradeOf(used)));
        },
      ),
    );
    expect([gradeOf(0.7), gradeOf(1), gradeOf(1.0001)]).toEqual(['watch', 'watch', 'replace']);
    expect(worstOf([])).toBe('keep');
  });

  it('goes by the share of the allowance, whichever way the part wears', () => {
    expect(shareUsed(8.45, { nominal: 8.62, limit: 8.45 })).toBe(1);
    expect(shareUsed(8.7, { nominal: 8.62, limit: 8.45 })).toBeLessThan(0);
    expect(() => shareUsed(1, { nominal: 2, limit: 2 })).toThrow(RangeError);
  });
});

describe('what is measured of a worn part', () => {
  const clearance = { nominal: 0.03, limit: 0.08 };

  it('is graded by its worst place: one more measurement never makes it better', () => {
    const figures = fc.array(mm, { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(figures, figures, mm, (outer, inner, more) => {
        const used = (o: number[], i: number[]) => WEAR_FEATURES.fit({ outer: o, inner: i, clearance }).used;
        expect(used([...outer, more], inner)).toBeGreaterThanOrEqual(used(outer, inner));
        expect(used(outer, [...inner, more])).toBeGreaterThanOrEqual(used(outer, inner));
      }),
    );
  });

  it('of a spring gives the loads back that its rate was found by', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 300, noNaN: true }),
        fc.double({ min: 5, max: 60, noNaN: true }),
        (force, rate) => {
          const found = WEAR_FEATURES.spring({
            ...{ freeLength: 44, freeLengthSpec: { nominal: 44, limit: 42 }, coilBindHeight: 20 },
            loads: [
              { height: 36, force },
              { height: 28, force: force + 8 * rate },
            ],
            ...{ installedHeight: 36, lift: 8 },
          });
          expect(found.rate).toBeCloseTo(rate, 6);
          expect(found.seatForce).toBeCloseTo(force, 6);
          expect(found.openForce).toBeCloseTo(force + 8 * rate, 6);
        },
      ),
    );
    const flat = { height: 36, force: 180 };
    expect(() =>
      WEAR_FEATURES.spring({
        ...{ freeLength: 44, freeLengthSpec: { nominal: 44, limit: 42 }, coilBindHeight: 20 },
        ...{ loads: [flat, flat], installedHeight: 36, lift: 8 },
      }),
    ).toThrow(RangeError);
  });

  it('of a band is out by how far the worst of it is out, either side', () => {
    expect(WEAR_FEATURES.band({ measured: [1.1, 1.5], min: 1.1, max: 1.5 })).toMatchObject({
      outside: 0,
      verdict: 'keep',
    });
    expect(() => WEAR_FEATURES.band({ measured: [1], min: 2, max: 1 })).toThrow(RangeError);
  });

  it('of a chain goes by the worst of several places', () => {
    const of = (measured: number | number[]) =>
      WEAR_FEATURES.chain({ measured, nominal: 127, limitPercent: 1.5 }).stretchPercent;
    expect(of([127.2, 127.89, 127.5])).toBe(of(127.89));
  });

  it('of compression finds the low one, and nothing where all are even', () => {
    const all = (...pressures: number[]) =>
      WEAR_FEATURES.compression({
        cylinders: pressures.map((pressure, index) => ({ cylinder: String(index + 1), pressure })),
        ...{ least: 9, spreadLimit: 0.1 },
      });
    expect(all(10, 10.5, 10.2)).toMatchObject({ low: [], verdict: 'keep' });
    expect(all(10, 9)).toMatchObject({ low: [], spread: 0.1 });
    expect(() => all(0, 0)).toThrow(RangeError);
  });
});

describe('a rate of wear', () => {
  it('of measurements on a line is that line, in whichever order they come', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.001, max: -0.00001, noNaN: true }),
        fc.uniqueArray(fc.integer({ min: 0, max: 5000 }), { minLength: 2, maxLength: 6 }),
        (perUnit, usages) => {
          const observations = usages.map((usage) => ({ usage, measured: 8.6 + perUnit * usage }));
          const { perUnit: found, atLimit, left } = wearRate({ observations, nominal: 8.6, limit: 8 });
          expect(found).toBeCloseTo(perUnit, 8);
          expect(atLimit! * perUnit).toBeCloseTo(-0.6, 6);
          expect(left).toBeCloseTo(Math.max(0, atLimit! - Math.max(...usages)), 4);
        },
      ),
    );
  });

  it('says nothing of one running figure, and no end where a part does not wear', () => {
    const same = [
      { usage: 5, measured: 1 },
      { usage: 5, measured: 2 },
    ];
    expect(wearRate({ observations: same, nominal: 1, limit: 2 })).toEqual({
      ...{ perUnit: null, atLimit: null, left: null },
    });
    const better = [
      { usage: 5, measured: 2 },
      { usage: 9, measured: 1 },
    ];
    expect(wearRate({ observations: better, nominal: 1, limit: 2 })).toMatchObject({
      atLimit: null,
      left: null,
    });
  });
});

describe('a lash budget', () => {
  const kinds = Object.keys(HEAD_OPERATIONS) as HeadOperation[];
  const ofBlock = kinds.filter((kind) => (HEAD_OPERATIONS[kind] as { camIn?: string }).camIn !== 'head');
  const someSteps = fc.array(fc.record({ kind: fc.constantFrom(...ofBlock), depth: mm }), { maxLength: 6 });

  it('is the sum of its steps, and keeps what is not known of the gap as wide as it was', () => {
    fc.assert(
      fc.property(someSteps, fc.double({ min: 0.5, max: 2, noNaN: true }), (steps, rockerRatio) => {
        const { effects, lo, hi } = lashBudget({ lo: 0.1, hi: 0.12, steps, rockerRatio });
        expect(lo - 0.1).toBeCloseTo(
          effects.reduce((sum, one) => sum + one, 0),
          9,
        );
        expect(hi - lo).toBeCloseTo(0.02, 9);
      }),
    );
  });

  it('names the shim that brings the middle back to its target, at the valve as at the cam', () => {
    fc.assert(
      fc.property(
        someSteps,
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        fc.constantFrom('valve' as const, 'cam' as const),
        (steps, rockerRatio, gapAt) => {
          const input = {
            lo: 0.1,
            hi: 0.12,
            rockerRatio,
            gapAt,
            pivot: 'between' as const,
            installed: 2.5,
            target: 0.15,
          };
          const { neededShim } = lashBudget({ ...input, steps });
          const thicker = { kind: 'shim-thicker' as const, depth: Math.abs(neededShim! - 2.5) };
          const { lo, hi } = lashBudget({ ...input, steps: [...steps, thicker] });
          // a thinner one is the same step the other way
          const back = neededShim! < 2.5 ? 2 * thicker.depth * (gapAt === 'cam' ? 1 / rockerRatio : 1) : 0;
          expect((lo + hi) / 2 + back).toBeCloseTo(0.15, 6);
        },
      ),
    );
  });

  it('closes where a finger’s pivot goes up, opens where a rocker’s does, and asks which it is at the cam', () => {
    const up = (more: object) =>
      lashBudget({
        lo: 0.1,
        hi: 0.12,
        rockerRatio: 1.5,
        steps: [{ kind: 'pivot-higher', depth: 0.1 }],
        ...more,
      }).effects[0];
    expect(up({})).toBeCloseTo(0.25);
    expect(up({ pivot: 'end' })).toBeCloseTo(-0.05);
    expect(up({ pivot: 'end', gapAt: 'cam' })).toBeCloseTo(-0.05 / 1.5);
    expect(() => up({ gapAt: 'cam' })).toThrow(/pivot/);
    // the gap of a closing side is at the valve, whatever is said of the opening one
    const shim = { steps: [{ kind: 'shim-thicker' as const, depth: 0.1 }], side: 'closing' as const };
    expect(lashBudget({ lo: 0, hi: 0.02, rockerRatio: 1.5, gapAt: 'cam', ...shim }).effects).toEqual([-0.1]);
  });

  it('is refused where a step does not touch the gap, or is not told whole', () => {
    const budget = (step: object, more: object = {}) =>
      lashBudget({ lo: 0.1, hi: 0.12, steps: [step as never], ...more });
    expect(() => budget({ kind: 'head-skim', depth: 0.1 }, { camIn: 'head' })).toThrow(/valve timing/);
    expect(() => budget({ kind: 'carrier-skim', depth: 0.1 })).toThrow(/valve timing/);
    expect(() => budget({ kind: 'seat-cut' })).toThrow(/depth/);
    expect(() => budget({ kind: 'tip-grind', normalDepth: 0.1, seatAngle: 45 })).toThrow(/angle/);
    expect(() => budget({ kind: 'seat-cut', normalDepth: 0.1, seatAngle: 90 })).toThrow(/seatAngle/);
    expect(() => budget({ kind: 'seat-cut', normalDepth: 0.1, depth: 0.1 })).toThrow(/one way/);
    expect(() => budget({ kind: 'base-circle-smaller', depth: 0.1 }, { side: 'closing' })).toThrow(/closing/);
  });

  it('of a closing side runs the other way', () => {
    const cut = { kind: 'seat-cut' as const, depth: 0.08 };
    const [opening] = lashBudget({ lo: 0.1, hi: 0.12, steps: [cut] }).effects;
    const [closing] = lashBudget({ lo: 0.1, hi: 0.12, steps: [cut], side: 'closing' }).effects;
    expect(closing).toBe(-opening!);
  });
});

describe('the order of bolts', () => {
  const someBolts = fc
    .array(fc.record({ x: fc.integer({ min: -200, max: 200 }), y: fc.integer({ min: -100, max: 100 }) }), {
      minLength: 1,
      maxLength: 14,
    })
    .map((places) => places.map((place, index) => ({ id: String(index), ...place })));

  it('has every bolt once, from the middle outward, and is slackened the other way', () => {
    fc.assert(
      fc.property(someBolts, (bolts) => {
        const { tighten, slacken } = tightenOrder({ bolts });
        expect([...tighten].sort()).toEqual(bolts.map(({ id }) => id).sort());
        expect(slacken).toEqual([...tighten].reverse());
        const middle = (axis: 'x' | 'y') => bolts.reduce((sum, bolt) => sum + bolt[axis], 0) / bolts.length;
        const from = (id: string) => {
          const bolt = bolts.find((one) => one.id === id)!;
          return Math.hypot(bolt.x - middle('x'), bolt.y - middle('y'));
        };
        const deep = 0.1 * Math.max(...bolts.map(({ id }) => from(id)));
        tighten.slice(1).forEach((id, index) => {
          expect(from(id)).toBeGreaterThanOrEqual(from(tighten[index]!) - deep - 1e-6);
        });
      }),
    );
  });

  it('is of bolts with names of their own', () => {
    expect(() => tightenOrder({ bolts: [] })).toThrow(RangeError);
    const bolt = { id: 'a', x: 0, y: 0 };
    expect(() => tightenOrder({ bolts: [bolt, bolt] })).toThrow(RangeError);
  });
});

describe('a torque', () => {
  it('is the same after going from one unit to another and back', () => {
    for (const from of TORQUE_UNITS)
      for (const to of TORQUE_UNITS)
        expect(
          torque({ value: torque({ value: 24, from, to }).value, from: to, to: from }).value,
        ).toBeCloseTo(24);
  });
});
