import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calibrationOf, intervalSays, wasInside } from '../fleet/index.ts';
import {
  broughtForward,
  causesOf,
  courseAhead,
  driftOf,
  FORECAST_THRESHOLD,
  isQuiet,
  quietUntil,
  ownDrift,
  pointForecasts,
  rolePriors,
  saidOf,
  statedPrior,
  type PointCourse,
} from '../rechecks/index.ts';

const LIMITS = { min: 0.3, max: 0.4 };
/** A point that moves by so much an hour, seen at these hours, a hundredth wide. */
const course = (point: string, perHour: number, hours: readonly number[], from = 0.35): PointCourse => ({
  ...{ point, role: 'exhaust', limits: LIMITS },
  observations: hours.map((usage) => {
    const gap = from + perHour * usage;
    return { usage, lo: gap - 0.005, hi: gap + 0.005 };
  }),
});

describe('what is expected of a point', () => {
  it('is as stated under five of the shop’s own, and from five on as they say', () => {
    const own = (count: number) =>
      rolePriors(
        ['exhaust', 'intake'],
        'hours',
        Array.from({ length: count }, (_, index) => ({
          ...{ role: 'exhaust', value: -0.0001 - index * 0.000001, se: 0.00002 },
        })),
      );
    expect(own(4)[0]).toMatchObject({ from: 'stated', count: 4, perUnit: statedPrior('hours').perUnit.mean });
    expect(own(5)[0]).toMatchObject({ from: 'own', count: 5 });
    expect(own(5)[0]!.perUnit).toBeCloseTo(-0.000102, 6);
    expect(own(5)[1]).toMatchObject({ role: 'intake', from: 'stated', count: 0 });
    // figures that agree to the last still leave the next one some spread
    const alike = rolePriors(['exhaust'], 'hours', Array(9).fill({ role: 'exhaust', value: 0, se: 1e-9 }));
    expect(alike[0]!.sd).toBeGreaterThan(0);
  });

  it('counts a kilometre and a start as the running they are', () => {
    const rate = (unit: 'hours' | 'km' | 'starts' | 'events') => statedPrior(unit).perUnit.sd;
    expect(rate('km')).toBeCloseTo(rate('hours') / 40, 12);
    expect(statedPrior('km').tau).toBeCloseTo(statedPrior('hours').tau * 40, 9);
    expect(rate('starts')).toBeLessThan(rate('hours'));
  });
});

describe('a forecast', () => {
  it('finds the drift that a point truly has, and says when it will be out', () => {
    const seen = course('1E', -0.0002, [0, 60, 120, 200]);
    const drift = ownDrift(seen, 'hours')!;
    expect(Math.abs(drift.value + 0.0002)).toBeLessThan(3 * drift.se);
    const [forecast] = pointForecasts([seen], 'hours', [], { now: 200, at: 250 });
    // 0.35 − 0.0002 · 250, near its lower end: it may be out at about 250 hours
    expect(forecast!.mean).toBeGreaterThan(0.295);
    expect(forecast!.mean).toBeLessThan(0.32);
    expect(forecast!.outAt).toBeGreaterThanOrEqual(200);
    expect(forecast!.outAt).toBeLessThan(300);
  });

  it('is never under nothing: what closes is closed, and is as surely tight', () => {
    const closing = course('1E', -0.0005, [0, 200, 400]);
    const [forecast] = pointForecasts([closing], 'hours', [], { now: 400, at: 1000 });
    expect(forecast!.mean).toBe(0);
    expect(forecast!.pTight).toBeGreaterThan(0.99);
    const ahead = courseAhead(closing, 'hours', [], { from: 0, to: 1200, steps: 12 });
    expect(Math.min(...ahead.map(({ mean }) => mean))).toBe(0);
    expect(ahead[0]!.mean).toBeCloseTo(0.35, 2);
  });

  it('says nothing of a point that was never measured, and estimates nothing from one look', () => {
    expect(pointForecasts([{ ...course('1E', 0, []) }], 'hours', [], { now: 0, at: 10 })).toEqual([]);
    // proved only, it rests on the default; looked at again, or with its kind known, it does not
    const byDefault = (usages: readonly number[], from: 'own' | 'stated') =>
      pointForecasts(
        [course('1E', 0, usages)],
        'hours',
        [{ role: 'exhaust', from, count: 6, perUnit: 0, sd: 1e-5, betweenSd: 1e-5 }],
        { now: 200, at: 250 },
      )[0]!.byDefault;
    expect([byDefault([0], 'stated'), byDefault([0, 200], 'stated'), byDefault([0], 'own')]).toEqual([
      ...[true, false, false],
    ]);
    expect(ownDrift(course('1E', 0, [0]), 'hours')).toBeNull();
    expect(ownDrift(course('1E', 0, [5, 5]), 'hours')).toBeNull();
  });

  it('holds a steady point in its band, whatever the unit', () => {
    for (const unit of ['hours', 'km', 'starts'] as const) {
      const [forecast] = pointForecasts([course('1E', 0, [0, 10, 20])], unit, [], { now: 20, at: 40 });
      expect(forecast!.pTight + forecast!.pLoose).toBeLessThan(FORECAST_THRESHOLD);
    }
  });

  it('is surer of what it saw than of what it did not, and surer with more looks', () => {
    fc.assert(
      fc.property(
        // a drift that its kind has: one that it has not is believed alone
        fc.double({ min: -0.00008, max: 0.00008, noNaN: true }),
        fc.integer({ min: 2, max: 8 }),
        (perHour, looks) => {
          const hours = Array.from({ length: looks }, (_, index) => index * 40);
          const sd = (of: PointCourse, usage: number) => saidOf(of, 'hours', [], usage).sd;
          const seen = course('1E', perHour, hours);
          const last = hours.at(-1)!;
          expect(sd(seen, last + 400)).toBeGreaterThan(sd(seen, last));
          expect(sd(course('1E', perHour, [...hours, last + 40]), last + 400)).toBeLessThan(
            sd(seen, last + 400),
          );
        },
      ),
    );
  });

  it('knows its own drift as well as the observations allow', () => {
    const { perUnit, perUnitSd, at } = driftOf({
      observations: course('1E', -0.0001, [0, 100]).observations,
      prior: { ...statedPrior('hours'), perUnit: { mean: 0, sd: 1 } },
      operatorSd: 0.004,
    });
    expect(perUnitSd).toBeGreaterThan(0);
    expect(at(100).mean).toBeCloseTo(0.34, 2);
    expect(Math.abs(perUnit + 0.0001)).toBeLessThan(2 * perUnitSd);
  });
});

describe('a point unlike the others', () => {
  const engine = (odd: number) => [
    ...[1, 2, 3].map((id) => course(`${id}E`, -0.00005, [0, 100, 300])),
    course('4E', odd, [0, 100, 300]),
  ];
  const named = (odd: number) =>
    pointForecasts(engine(odd), 'hours', [], { now: 300, at: 400 })
      .filter(({ unlike }) => unlike)
      .map(({ point, unlike }) => [point, unlike]);

  it('is named with the way it goes, and nobody is where all move alike', () => {
    expect(named(-0.00005)).toEqual([]);
    expect(named(-0.0004)).toEqual([['4E', 'tighter']]);
    expect(named(0.0003)).toEqual([['4E', 'looser']]);
  });

  it('has its causes by the way it goes', () => {
    expect(causesOf('tighter')[0]).toContain('seat');
    expect(causesOf('looser').join(' ')).toContain('pushrod');
    for (const way of ['tighter', 'looser'] as const) {
      expect(causesOf(way)).toContain('a wrong reading');
      expect(causesOf(way).join(' ')).toContain('tightened again');
    }
  });
});

describe('a recheck', () => {
  const out = (outAt: number | null) => [{ outAt }, { outAt: null }];

  it('is brought forward where the forecast is out before the plan looks, never put back, never at once', () => {
    const at = { now: 100, dueUsage: 350, setAt: 100 };
    expect(broughtForward(out(110), at)).toBe(210);
    expect(broughtForward(out(250), at)).toBeNull();
    expect(broughtForward(out(400), at)).toBeNull();
    expect(broughtForward(out(null), at)).toBeNull();
    // out already by its forecast: a tenth of the planned running is left to it
    expect(broughtForward(out(0), at)).toBe(125);
    expect(broughtForward(out(50), { ...at, dueUsage: null })).toBe(150);
    // what is only stated for any engine moves no date; one that was measured beside it does
    expect(broughtForward([{ outAt: 110, byDefault: true }], at)).toBeNull();
    expect(
      broughtForward(
        [
          { outAt: 60, byDefault: true },
          { outAt: 150, byDefault: false },
        ],
        at,
      ),
    ).toBe(250);
  });

  it('is brought to between now and the plan, whatever is forecast', () => {
    const usage = fc.double({ min: 0, max: 5000, noNaN: true });
    fc.assert(
      fc.property(usage, usage, usage, (now, planned, outAt) => {
        const dueUsage = now + planned;
        const brought = broughtForward([{ outAt }], { now, dueUsage, setAt: 0 });
        if (brought !== null) {
          expect(brought).toBeLessThan(dueUsage);
          expect(brought).toBeGreaterThanOrEqual(Math.min(now, dueUsage) - 0.05);
        }
      }),
    );
  });
});

describe('what all engines say', () => {
  const finding = (engine: string, found: number) => ({
    ...{ engine, found, width: 0.01, saidMean: 0.35, saidSd: 0.006 },
  });

  it('counts what lay inside what was said, with the spread of the measuring', () => {
    expect(wasInside(finding('a', 0.355), 0.004)).toBe(true);
    expect(wasInside(finding('a', 0.37), 0.004)).toBe(false);
    const all = ['a', 'b', 'c'].flatMap((engine) => [finding(engine, 0.352), finding(engine, 0.4)]);
    expect(calibrationOf(all, 0.004)).toEqual({ said: 0.8, count: 6, inside: 3, engines: 3 });
    expect(calibrationOf(all.slice(0, 4), 0.004)).toBeNull();
  });

  it.each([
    [{ engines: 2, rechecks: 40, out: 20, expectedOut: 0 }, 'too-few'],
    [{ engines: 3, rechecks: 4, out: 4, expectedOut: 0 }, 'too-few'],
    [{ engines: 3, rechecks: 5, out: 1, expectedOut: 0 }, 'shorter'],
    [{ engines: 3, rechecks: 10, out: 1, expectedOut: 0 }, 'right'],
    [{ engines: 3, rechecks: 10, out: 0, expectedOut: 0.01 }, 'longer'],
    [{ engines: 3, rechecks: 10, out: 0, expectedOut: 0.2 }, 'right'],
    [{ engines: 3, rechecks: 10, out: 0, expectedOut: null }, 'right'],
    [{ engines: 3, rechecks: 9, out: 0, expectedOut: 0.01 }, 'right'],
  ] as const)('of an interval with %o is that it is %s', (seen, says) => {
    expect(intervalSays(seen).says).toBe(says);
  });
});

describe('quiet hours', () => {
  const NIGHT = { from: '19:00', to: '07:00' };
  const at = (text: string) => Date.parse(text);
  const loud = (text: string, quiet = NIGHT, zone = 'Europe/Vienna') =>
    new Date(quietUntil(at(text), zone, quiet)).toISOString();

  it('are of the shop’s own clock, over midnight or within a day', () => {
    expect(isQuiet(at('2031-01-10T18:30:00Z'), 'Europe/Vienna', NIGHT)).toBe(true);
    expect(isQuiet(at('2031-01-10T18:30:00Z'), 'UTC', NIGHT)).toBe(false);
    expect(isQuiet(at('2031-01-10T12:00:00Z'), 'UTC', { from: '12:00', to: '13:00' })).toBe(true);
    expect(isQuiet(at('2031-01-10T13:00:00Z'), 'UTC', { from: '12:00', to: '13:00' })).toBe(false);
    expect(isQuiet(at('2031-01-10T03:00:00Z'), 'UTC', { from: '07:00', to: '07:00' })).toBe(false);
  });

  it('end in the morning, and a loud moment is told at once', () => {
    expect(loud('2031-01-10T22:10:20Z')).toBe('2031-01-11T06:00:00.000Z');
    expect(loud('2031-01-10T10:10:20Z')).toBe('2031-01-10T10:10:20.000Z');
  });

  it('hold over the nights in which an hour is swallowed or comes twice', () => {
    // 30 March 2031: 02:00 to 03:00 does not come; 26 October: it comes twice
    expect(loud('2031-03-29T23:00:00Z')).toBe('2031-03-30T05:00:00.000Z');
    expect(loud('2031-10-25T22:00:00Z')).toBe('2031-10-26T06:00:00.000Z');
    // quiet until an hour that never comes: the first one after it
    expect(loud('2031-03-29T23:00:00Z', { from: '22:00', to: '02:30' })).toBe('2031-03-30T01:00:00.000Z');
  });

  it('are never told in, whenever it is asked', () => {
    const time = fc
      .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
      .map(([hour, minute]) => `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`);
    fc.assert(
      fc.property(fc.integer({ min: 1_900_000_000, max: 1_990_000_000 }), time, time, (second, from, to) => {
        const told = quietUntil(second * 1000, 'Europe/Vienna', { from, to });
        expect(isQuiet(told, 'Europe/Vienna', { from, to })).toBe(false);
        expect(told - second * 1000).toBeGreaterThanOrEqual(0);
        expect(told - second * 1000).toBeLessThanOrEqual(26 * 3_600_000);
      }),
      { numRuns: 30 },
    );
  });
});
