import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { intervalOf, judge, nextBlade, parseEntry, type Reading } from '../measuring/index.ts';
import { crankStops, mayMeasureAt, openSpan } from '../turning/index.ts';
import {
  formatInterval,
  formatLength,
  mmFromTenths,
  parseFigure,
  parseLength,
  parsePitch,
  tenthsFromMm,
} from '../length/index.ts';
import { guardedBand, aimFor, fitPiece, pieceOutcome, screwTurn } from '../setting/index.ts';

const tenths = fc.integer({ min: 0, max: 20_000 });
const limits = fc
  .tuple(tenths, fc.integer({ min: 100, max: 3000 }))
  .map(([min, band]) => ({ min, max: min + band }));

describe('a figure of a manual', () => {
  it.each([
    ['8,62', 'mm', 8.62],
    ['0.340 in', 'mm', 8.636],
    ['12 thou', 'mm', 0.3048],
    ['-0.01', 'mm', -0.01],
    ['135 psi', 'bar', 9.3079],
    ['930 kPa', 'bar', 9.3],
    ['50 lbf', 'N', 222.4111],
    ['10 kgf', 'N', 98.0665],
    ['10 %', '%', 10],
    ['50 °F', '°C', 10],
    ['-4F', '°C', -20],
    ['20', '°C', 20],
  ] as const)('%s is kept in %s as %d', (text, unit, value) =>
    expect(parseFigure(text, unit)).toEqual({ value }),
  );

  it.each([
    ['', 'mm'],
    ['wide', 'mm'],
    ['8 bar', 'mm'],
    ['8.5 mm', 'bar'],
    ['1.2.3', 'mm'],
  ] as const)('“%s” is none in %s', (text, unit) => expect(parseFigure(text, unit)).toHaveProperty('error'));
});

describe('a thread’s pitch', () => {
  it.each([
    ['1.25', 1.25],
    ['0,75 mm', 0.75],
    ['24 tpi', 1.0583],
    ['20 threads per inch', 1.27],
    ['32/in', 0.7938],
  ])('%s is %d mm', (text, mm) => expect(parsePitch(text)).toEqual({ mm }));

  it.each([['M8'], ['tpi'], ['0'], [''], ['24 tpm']])('is not “%s”', (text) =>
    expect(parsePitch(text)).toHaveProperty('error'),
  );
});

describe('lengths', () => {
  it('come back from mm as they went, and add without error', () => {
    expect(tenthsFromMm(0.1) + tenthsFromMm(0.2)).toBe(tenthsFromMm(0.3));
    fc.assert(fc.property(tenths, (length) => tenthsFromMm(mmFromTenths(length)) === length));
  });

  it('are written so that what is read again is what was stored', () => {
    fc.assert(
      fc.property(tenths, (length) => {
        const parsed = parseLength(formatLength(length, 'mm'), 'mm');
        expect('mm' in parsed && tenthsFromMm(parsed.mm)).toBe(length);
      }),
    );
    expect(formatLength(1250, 'mm')).toBe('0.125');
    expect(formatInterval({ lo: 0, hi: 400, floor: false }, 'mm')).toBe('under 0.04');
    expect(formatInterval({ lo: 0, hi: 400, floor: true }, 'mm')).toBe('0.00–0.04');
    expect(formatLength(1524, 'thou')).toBe('6.0');
    // what is reckoned may lie under nothing; no gap does
    const said = (lo: number, hi: number | null) => formatInterval({ lo, hi }, 'mm');
    expect([said(-300, 200), said(-300, -100), said(-300, 0), said(0, 200), said(-300, null)]).toEqual([
      ...['less than 0.02', 'no gap', 'no gap', '0.00–0.02', 'not known'],
    ]);
  });

  it.each(['-0.2', '+1', '1e3', '0.1.2', '1,2,3', 'mm', '.', '0.2 furlong', '٣'])(
    'are not read from %s',
    (text) => {
      expect(parseLength(text, 'mm')).toEqual({ error: 'not a length' });
    },
  );
});

describe('judging', () => {
  const interval = fc
    .tuple(tenths, fc.integer({ min: 0, max: 2000 }))
    .map(([lo, width]) => ({ lo, hi: lo + width }));

  it('never calls in spec what may be under the minimum, however much is allowed over', () => {
    fc.assert(
      fc.property(interval, limits, fc.integer({ min: 0, max: 3000 }), (found, band, allowOver) => {
        const { verdict, onLimit } = judge(found, { ...band, allowOver });
        if (verdict === 'in-spec') expect(found.lo).toBeGreaterThanOrEqual(band.min);
        if (onLimit) expect(found.hi).toBeGreaterThan(band.max);
      }),
    );
  });

  it('only narrows as tries are added, until it contradicts itself', () => {
    const attempt = fc.record({
      thickness: fc.integer({ min: 1, max: 60 }).map((hundredths) => hundredths / 100),
      result: fc.constantFrom('goes' as const, 'wont' as const, 'drags' as const),
    });
    fc.assert(
      fc.property(fc.array(attempt, { minLength: 1, maxLength: 8 }), attempt, (tries, more) => {
        const before = intervalOf({ kind: 'tries', tries });
        const after = intervalOf({ kind: 'tries', tries: [...tries, more] });
        expect(after.lo).toBeGreaterThanOrEqual(before.lo);
        expect(after.hi ?? Infinity).toBeLessThanOrEqual(before.hi ?? Infinity);
      }),
    );
  });

  it('is settled by trying what is suggested, with fine enough blades', () => {
    const blades = Array.from({ length: 60 }, (_, index) => (index + 1) / 100);
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 5800 }), (gap) => {
        const spec = { min: 0.2, max: 0.3 };
        let known: { lo: number; hi: number | null } = { lo: 0, hi: null };
        for (let count = 0; count < 10; count += 1) {
          const { test } = nextBlade({ blades, maxStack: 1, lo: known.lo, hi: known.hi, spec });
          if (!test) break;
          if (tenthsFromMm(test.thickness) <= gap) known = { ...known, lo: test.thickness };
          else known = { ...known, hi: test.thickness };
        }
        const { verdict } = judge(
          { lo: tenthsFromMm(known.lo), hi: known.hi === null ? null : tenthsFromMm(known.hi) },
          { min: 2000, max: 3000 },
        );
        const truth = gap < 2000 ? 'tight' : gap >= 3100 ? 'loose' : gap < 3000 ? 'in-spec' : null;
        if (truth) expect(verdict).toBe(truth);
      }),
    );
  });
});

describe('an entry at a point', () => {
  const spec = { min: 0.13, max: 0.18 };
  const read = (text: string) => {
    const entry = parseEntry(text, 'mm', spec);
    return 'error' in entry ? entry.error : entry;
  };

  it.each<[string, Reading]>([
    ['0.15', { kind: 'drag', blade: 0.15 }],
    ['0,13 0,15', { kind: 'bracket', go: 0.13, noGo: 0.15 }],
    ['0.13  0.15 mm', { kind: 'bracket', go: 0.13, noGo: 0.15 }],
    ['>0.1', { kind: 'go-only', go: 0.1 }],
    ['< 0.3', { kind: 'no-go-only', noGo: 0.3 }],
  ])('%s', (text, reading) => {
    expect(read(text)).toMatchObject({ reading, doubts: [] });
  });

  it('takes one unit for both ends of a bracket', () => {
    expect(read('5 6 thou')).toMatchObject({ unit: 'thou', reading: { kind: 'bracket' } });
  });

  it('asks about a slipped point or unit, with what was meant', () => {
    expect(read('1.5')).toMatchObject({ doubts: [1.5], meant: [{ kind: 'drag', blade: 0.15 }] });
    expect(read('1.3 1.5')).toMatchObject({ meant: [{ kind: 'bracket', go: 0.13, noGo: 0.15 }] });
    // every figure it may have been meant for stands beside it, and there may be none
    const many = read('6');
    expect(typeof many === 'object' && many.meant.map((each) => 'blade' in each && each.blade)).toEqual([
      0.06, 0.6, 0.1524,
    ]);
  });

  it.each(['', '-0.15', '0.15 0.13', '1 2 3', 'tight', '999', '0.1 >'])(
    'refuses “%s” with a sentence',
    (text) => {
      expect(read(text)).toMatch(/\w+ \w+/);
    },
  );
});

describe('setting', () => {
  it('turns back by as much as the gap it opened', () => {
    const adjuster = { pitch: 0.75, screwSide: 'pushrod', rockerRatio: 1.4 } as const;
    fc.assert(
      fc.property(tenths, tenths, (from, to) => {
        const [measured, target] = [mmFromTenths(from), mmFromTenths(to)];
        const there = screwTurn({ ...adjuster, measured, target });
        const back = screwTurn({ ...adjuster, measured: target, target: measured });
        expect(there!.degrees).toBeCloseTo(-back!.degrees, 3);
        if (to > from) expect(there!.direction).toBe('loosen');
      }),
    );
  });

  it('fits the made size that leaves the least distance from target, and a thicker one always closes the gap', () => {
    const sizes = Array.from({ length: 25 }, (_, index) => 20_000 + index * 500);
    fc.assert(
      fc.property(limits, tenths, fc.constantFrom(...sizes), (band, lo, installed) => {
        const target = aimFor('middle', 'intake', band);
        const gap = { lo, hi: lo + 100, installed, gain: 1 };
        const choice = fitPiece({
          ...{
            lo: lo / 1e4,
            hi: gap.hi / 1e4,
            floor: true,
            installed: installed / 1e4,
            target: target / 1e4,
          },
          ...{ sizes: sizes.map((size) => size / 1e4), min: band.min / 1e4, max: band.max / 1e4 },
        });
        const outcomes = sizes.map((size) => ({
          size,
          ...pieceOutcome(gap, size, guardedBand(band, target, 0)),
        }));
        const best = outcomes.filter(({ status }) => status === choice.why);
        if (choice.size === null) expect(outcomes.every(({ status }) => status === 'unsolved')).toBe(true);
        else {
          const chosen = best.find(({ size }) => size === Math.round(choice.size! * 1e4))!;
          expect(chosen.deviation).toBe(Math.min(...best.map(({ deviation }) => deviation)));
          if (choice.why === 'likely')
            expect(outcomes.every(({ status }) => status !== 'certain')).toBe(true);
          expect(chosen.lo).toBeGreaterThanOrEqual(0);
        }
        expect(pieceOutcome(gap, installed + 500, guardedBand(band, target, 0)).lo).toBeLessThan(lo);
      }),
    );
  });
});

describe('crank stops', () => {
  const engine = fc
    .record({
      count: fc.constantFrom(1, 2, 3, 4, 6, 8, 12),
      offset: fc.integer({ min: 0, max: 719 }),
      margin: fc.integer({ min: 0, max: 30 }),
      uneven: fc.integer({ min: 0, max: 40 }),
    })
    .map(({ count, offset, margin, uneven }) => {
      const cylinders = Array.from({ length: count }, (_, index) => ({
        id: String(index + 1),
        firesAt: (offset + (index * 720) / count + (index % 2) * uneven) % 720,
      }));
      const points = cylinders.flatMap(({ id }) => [
        { key: `${id}I`, cylinder: id, role: 'intake' },
        { key: `${id}E`, cylinder: id, role: 'exhaust' },
        { key: `${id}B`, cylinder: id, role: 'brake', opens: 300, closes: 380 },
      ]);
      return { cylinders, points, events: { ivoBtdc: 14, ivcAbdc: 52, evoBbdc: 54, evcAtdc: 12 }, margin };
    });

  it('at any angle reach every point on its base circle, with no more stops than whole degrees need', () => {
    fc.assert(
      fc.property(engine, (input) => {
        const plan = crankStops({ ...input, marks: 'any' });
        const spans = new Map(
          input.points.map((point) => [point.key, openSpan(point, input.cylinders, input.events)]),
        );
        for (const stop of plan.stops)
          for (const key of stop.points)
            expect(mayMeasureAt(spans.get(key)!, input.margin, stop.angle)).toBe(true);
        expect(plan.stops.flatMap(({ points }) => points)).toHaveLength(input.points.length);
        const everyDegree = Array.from({ length: 720 }, (_, degree) => degree);
        expect(plan.count).toBeLessThanOrEqual(
          crankStops({ ...input, marks: everyDegree.filter((d) => d % 5 === 0) }).count,
        );
      }),
      { numRuns: 40 },
    );
  });

  it('name the points no stop can reach', () => {
    const plan = crankStops({
      cylinders: [{ id: '1', firesAt: 0 }],
      points: [
        { key: '1I', cylinder: '1', role: 'intake' },
        { key: '1E', cylinder: '1', role: 'exhaust', opens: 0, closes: 715 },
      ],
      events: { ivoBtdc: 14, ivcAbdc: 52, evoBbdc: 54, evcAtdc: 12 },
      marks: 'any',
      margin: 15,
    });
    expect(plan).toMatchObject({ count: 1, unreachable: ['1E'] });
  });
});
