import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boltPlaces, tightenOrder } from '../assembly/index.ts';
import {
  alongAxis,
  forecastBias,
  lashBudget,
  OPERATION_WORDS,
  operationsFor,
  pointBudget,
  HEAD_OPERATIONS,
  type HeadOperation,
  type HeadWorkLine,
  type PointBudgetInput,
} from '../headwork/index.ts';
import { limitsFromMm } from '../measuring/index.ts';
import type { Pattern } from '../sheets/index.ts';
import { inlineFour, inlineSix } from './patterns.ts';

const line = (valve: string, operation: HeadOperation, depth: number, more: Partial<HeadWorkLine> = {}) => ({
  ...{ step: `${operation} ${valve}`, valve, operation, depth, normalDepth: null, seatAngle: null },
  ...{ done: null, dropped: false },
  ...more,
});
/** Buckets of 2.00 to 3.00 by 0.05 on a head with its own cams. */
const point = (more: Partial<PointBudgetInput>): PointBudgetInput => ({
  ...{ pattern: inlineSix, point: { key: '1I', role: 'intake' }, found: { lo: 0.14, hi: 0.16 }, lines: [] },
  ...{ limits: limitsFromMm({ min: 0.11, max: 0.19 }), target: 0.15, installed: 2.5 },
  ...{ standout: null, standoutLimits: null, tipLimit: null },
  ...more,
});
const screws: Pattern = {
  ...inlineSix,
  means: { kind: 'screw', end: 'pushrod', pitch: 1, rockerRatio: 1.5, locking: 'lock-nut', torqueNm: null },
};

describe('what head work leaves at a point', () => {
  it('is what the budget of its steps says, step by step', () => {
    const lines = [line('1I', 'seat-cut', 0.1), line('1I', 'tip-grind', 0.03)];
    const budget = pointBudget(point({ lines, tipLimit: 0.2 }))!;
    const whole = lashBudget({
      ...{ lo: 0.14, hi: 0.16, camIn: 'head' },
      steps: [
        { kind: 'seat-cut', depth: 0.1 },
        { kind: 'tip-grind', depth: 0.03 },
      ],
      ...{ installed: 2.5, target: 0.15, sizes: { min: 2, max: 3 } },
    });
    expect(budget.rows.map(({ effect }) => effect)).toEqual(whole.effects);
    expect([budget.lo, budget.hi]).toEqual([whole.lo, whole.hi]);
    expect(budget.piece!.needed).toBeCloseTo(whole.neededShim!, 12);
    expect(budget.piece).toMatchObject({ nearest: 2.45, verdict: 'in-spec', underThinnest: 0 });
    expect(budget.fails).toBe(false);
  });

  it('is not worked out where it hangs on a ratio that nobody knows', () => {
    const means = { ...screws.means, rockerRatio: null } as Pattern['means'];
    const pattern = { ...screws, means };
    const at = (operation: HeadOperation) =>
      pointBudget(point({ pattern, lines: [line('1I', operation, 0.1)] }));
    expect(at('seat-cut')?.rows).toHaveLength(1);
    expect(
      pointBudget(
        point({
          pattern: { ...screws, means: { ...means, gapAt: 'cam' } as never },
          lines: [line('1I', 'seat-cut', 0.1)],
        }),
      ),
    ).toBeNull();
    const through = (Object.keys(HEAD_OPERATIONS) as HeadOperation[]).filter(
      (operation) => HEAD_OPERATIONS[operation].end !== 'valve' && operationsFor(pattern).includes(operation),
    );
    for (const operation of through) expect(at(operation), operation).toBeNull();
    // how far the screw will stand out hangs on it too
    const stands = pointBudget(point({ pattern, lines: [line('1I', 'seat-cut', 0.1)], standout: 5 }));
    expect(stands?.screw).toBeNull();
  });

  it('needs the same piece in the end, whatever thicker one is put in on the way', () => {
    const plain = pointBudget(point({ lines: [line('1I', 'seat-cut', 0.1)] }))!;
    for (const kind of ['shim-thicker', 'crown-thicker'] as const) {
      const shims: Pattern = {
        ...inlineSix,
        means: {
          ...{ kind: 'shim', seat: 'under-bucket', sizes: { from: 2, to: 3, step: 0.05 } },
          ...{ diameter: 9, marking: '', seatOffset: null },
        },
      };
      const pattern = kind === 'crown-thicker' ? inlineSix : shims;
      const lines = [line('1I', 'seat-cut', 0.1), line('1I', kind, 0.2)];
      expect(pointBudget(point({ pattern, lines }))!.piece!.needed, kind).toBeCloseTo(plain.piece!.needed, 9);
    }
  });

  it('counts what was done as it was measured, and nothing that was dropped', () => {
    const done = [
      line('1I', 'seat-cut', 0.1, { done: 0.14 }),
      line('1I', 'face-cut', 0.5, { dropped: true }),
      line('2I', 'seat-cut', 0.3),
    ];
    const budget = pointBudget(point({ lines: done }))!;
    expect(budget.rows).toMatchObject([{ effect: -0.14, done: true }]);
    expect(
      alongAxis(line('1I', 'seat-cut', 0, { depth: null, normalDepth: 0.1, seatAngle: 45 })),
    ).toBeCloseTo(0.1 / Math.cos(Math.PI / 4));
  });

  it('says before anybody cuts which valves nothing made will bring in, by how much, and what to change', () => {
    const lines = [line('1I', 'seat-cut', 0.6)];
    const budget = pointBudget(point({ lines, tipLimit: 0.2 }))!;
    expect(budget.fails).toBe(true);
    expect(budget.piece!.underThinnest).toBeCloseTo(0.1);
    expect(budget.ways.join('; ')).toMatch(/cut 0\.07\smm less.*grind 0\.07\smm.*seat that lets/s);
    // no tip is spoken of where the sheet allows none
    expect(pointBudget(point({ lines }))!.ways.join('; ')).not.toMatch(/grind/);
    // a way that is taken brings it in
    const less = pointBudget(point({ lines: [line('1I', 'seat-cut', 0.53)] }))!;
    expect(less.fails).toBe(false);
    expect(
      pointBudget(point({ lines: [line('1I', 'seat-cut', 0.6, { done: 0.6 })], tipLimit: null }))!.ways,
    ).not.toEqual(expect.arrayContaining([expect.stringMatching(/^cut /)]));
  });

  it('is nothing where no blade went, nothing bounds it, or the tries contradict, and never an exception', () => {
    for (const found of [
      { lo: 0, hi: 0.05, floor: false },
      { lo: 0.14, hi: null, floor: true },
      { lo: 0.3, hi: 0.2, floor: true },
    ])
      expect(pointBudget(point({ found, lines: [line('1I', 'seat-cut', 8)] }))).toBeNull();
  });

  it('never speaks for grinding a tip beyond the sheet', () => {
    const lines = [line('1I', 'tip-grind', 0.1)];
    expect(pointBudget(point({ lines }))!.cautions[0]).toMatch(/allows no tip/);
    expect(pointBudget(point({ lines, tipLimit: 0.05 }))!.cautions[0]).toMatch(/More is ground off/);
    expect(pointBudget(point({ lines, tipLimit: 0.1 }))!.cautions).toEqual([]);
  });

  it('warns where the valve would be held open', () => {
    expect(pointBudget(point({ lines: [line('1I', 'seat-cut', 0.3)] }))!.cautions[0]).toMatch(/held open/);
  });

  it('takes the mean of two stems under a loose bridge, and the fixed stem under a guided one', () => {
    const bridged = { pattern: inlineFour, point: { key: '1E', role: 'exhaust' as const } };
    const lines = [
      line('1Ea', 'seat-cut', 0.1, { step: 'seats' }),
      line('1Eb', 'seat-cut', 0.04, { step: 'seats' }),
    ];
    expect(pointBudget(point({ ...bridged, lines }))!.rows[0]!.effect).toBeCloseTo(-0.07);
    const guided = { ...bridged, pattern: { ...inlineFour, bridgeKind: 'guided' as const } };
    expect(pointBudget(point({ ...guided, lines }))!.rows[0]!.effect).toBeCloseTo(-0.1);
  });

  it('moves a closing side alone with the groove of a new stem, and is offered where a valve is drawn shut', () => {
    const drawn: Pattern = { ...inlineSix, closingSide: true };
    const at = (key: string, role: 'intake' | 'intake-closing', operation: HeadOperation) =>
      pointBudget(point({ pattern: drawn, point: { key, role }, lines: [line('1I', operation, 0.1)] }))!
        .rows[0]!.effect;
    expect(at('1I-c', 'intake-closing', 'groove-higher')).toBeCloseTo(0.1);
    expect(at('1I-c', 'intake-closing', 'groove-lower')).toBeCloseTo(-0.1);
    expect(at('1I', 'intake', 'groove-higher')).toBe(0);
    expect(operationsFor(drawn)).toEqual(expect.arrayContaining(['groove-higher', 'groove-lower']));
    expect(operationsFor(inlineSix)).not.toContain('groove-higher');
  });

  it('runs the other way on a closing side', () => {
    const drawn: Pattern = { ...inlineSix, closingSide: true };
    const closing = point({
      pattern: drawn,
      point: { key: '1I-c', role: 'intake-closing' },
      found: { lo: 0.02, hi: 0.04 },
      lines: [line('1I', 'seat-cut', 0.1)],
    });
    expect(pointBudget(closing)!.rows[0]!.effect).toBeCloseTo(0.1);
  });

  it('says how far a screw will stand out, through its rocker', () => {
    const budget = pointBudget(
      point({
        pattern: screws,
        ...{ lines: [line('1I', 'seat-cut', 0.15)], installed: null, standout: 5 },
        standoutLimits: { min: 3, max: 5.05 },
      }),
    )!;
    expect(budget.screw!.standout).toBeCloseTo(5 + 0.15 / 1.5);
    expect(budget.screw!.outside).toBeCloseTo(0.05);
    expect(budget.fails).toBe(true);
    expect(budget.piece).toBeNull();
  });

  it('is not worked out from what is not known', () => {
    expect(pointBudget(point({ found: null }))).toBeNull();
    expect(pointBudget(point({ installed: null }))!.piece).toBeNull();
  });

  it('is the sum of its effects, in whatever order the work was written down', () => {
    const kinds = operationsFor(inlineSix);
    const works = fc.array(
      fc.record({
        kind: fc.constantFrom(...kinds),
        depth: fc.integer({ min: 0, max: 300 }),
        step: fc.uuid(),
      }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(works, (all) => {
        const lines = all.map(({ kind, depth, step }) => line('1I', kind, depth / 1000, { step }));
        const forth = pointBudget(point({ lines }))!;
        const back = pointBudget(point({ lines: lines.toReversed() }))!;
        expect(back.lo).toBeCloseTo(forth.lo, 9);
        const sum = forth.rows.reduce((total, { effect }) => total + effect, 0);
        expect(forth.hi).toBeCloseTo(0.16 + sum, 9);
        if (forth.rows.length > 0) expect(forth.rows.at(-1)!.hi).toBe(forth.hi);
      }),
    );
  });
});

describe('the work an engine may have done', () => {
  it('has a word for every operation, and leaves out what touches no gap there', () => {
    expect(Object.keys(OPERATION_WORDS).sort()).toEqual(Object.keys(HEAD_OPERATIONS).sort());
    expect(operationsFor(inlineSix)).not.toContain('head-skim');
    expect(operationsFor(inlineSix)).toContain('carrier-skim');
    expect(operationsFor(screws)).toContain('head-skim');
    expect(operationsFor(screws)).not.toContain('shim-thicker');
  });
});

describe('how far forecasts were off', () => {
  it('is their mean and spread, too low above nothing', () => {
    expect(forecastBias([])).toBeNull();
    expect(forecastBias([{ forecast: 0.1, measured: 0.12 }])).toMatchObject({ count: 1, sd: null });
    const bias = forecastBias([
      { forecast: 0.1, measured: 0.12 },
      { forecast: 0.2, measured: 0.24 },
    ])!;
    expect(bias.mean).toBeCloseTo(0.03);
    expect(bias.sd).toBeCloseTo(Math.SQRT2 * 0.01);
  });
});

describe('the bolts of a head', () => {
  it('stand four round every bore, and each is tightened once', () => {
    for (const pattern of [inlineFour, inlineSix]) {
      const bolts = boltPlaces(pattern, 'A');
      expect(bolts).toHaveLength((pattern.cylinders.length + 1) * 2);
      const { tighten, slacken } = tightenOrder({ bolts });
      expect(tighten.toSorted()).toEqual(bolts.map(({ id }) => id).toSorted());
      expect(slacken).toEqual(tighten.toReversed());
      // from the middle outward: the ends come last
      expect(
        bolts
          .filter(({ id }) => tighten.slice(-4).includes(id))
          .every(({ x }) => x === 0 || x === pattern.cylinders.length),
      ).toBe(true);
    }
  });
});
