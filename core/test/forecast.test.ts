import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fleetPrior, normalBelow, unlike } from '../fleet/index.ts';
import {
  addDays,
  comesInWords,
  driftForecast,
  nextCheckInWords,
  recheckDay,
  recheckDayInLetter,
  recheckDayInWords,
  recheckDue,
  type DriftForecastInput,
} from '../rechecks/index.ts';
import { limitsFromMm } from '../measuring/index.ts';
import { feelSpread, firstKnown, leftByPiece, lockShift } from '../setting/index.ts';
import { at, reading, setting, shims } from './keptBuild.ts';

describe('the normal distribution', () => {
  it('has its known figures, in the middle and in the tails', () => {
    for (const [z, p] of [
      [0, 0.5],
      [1, 0.8413447460685429],
      [1.959963984540054, 0.975],
      [-2.5, 0.006209665325776132],
      [-3, 0.0013498980316300933],
      [-8, 6.220960574271785e-16],
    ] as const)
      expect(Math.abs(normalBelow(z) / p - 1), String(z)).toBeLessThan(1e-12);
  });

  it('rises, and has two sides alike', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (z, more) => {
          expect(normalBelow(z + more)).toBeGreaterThanOrEqual(normalBelow(z) - 1e-16);
          expect(normalBelow(z) + normalBelow(-z)).toBeCloseTo(1, 12);
        },
      ),
    );
  });
});

describe('a forecast', () => {
  const input = (change: Partial<DriftForecastInput> = {}): DriftForecastInput => ({
    observations: [{ usage: 0, lo: 0.14, hi: 0.15 }],
    spec: { min: 0.11, max: 0.19 },
    prior: { bedIn: { mean: -0.01, sd: 0.01 }, perUnit: { mean: -0.00002, sd: 0.00008 }, tau: 25 },
    ...{ operatorSd: 0.006, threshold: 0.1, horizon: 2000, step: 5, at: [100, 500] },
    ...change,
  });

  it('grows surer with every look, and never surer the farther it looks', () => {
    const once = driftForecast(input());
    const more = driftForecast(
      input({
        observations: [0, 50, 100].map((usage) => ({ usage, lo: 0.14, hi: 0.15 })),
      }),
    );
    expect(more.at[0]!.sd).toBeLessThan(once.at[0]!.sd);
    expect(once.at[1]!.sd).toBeGreaterThan(once.at[0]!.sd);
  });

  it('finds the drift that was there, from looks enough', () => {
    const drift = (usage: number) => 0.18 - 0.0001 * usage;
    const observations = Array.from({ length: 60 }, (_, index) => {
      const usage = index * 10;
      return { usage, lo: drift(usage) - 0.005, hi: drift(usage) + 0.005 };
    });
    const wide = { mean: 0, sd: 1 };
    const { perUnit, at } = driftForecast(
      input({ observations, prior: { bedIn: { mean: 0, sd: 0.0001 }, perUnit: wide, tau: 25 }, at: [1000] }),
    );
    expect(perUnit).toBeCloseTo(-0.0001, 6);
    expect(at[0]!.mean).toBeCloseTo(drift(1000), 3);
    expect(at[0]!.pTight).toBeGreaterThan(0.99);
  });

  it('is due where it may be out, sooner with a lower threshold, and never beyond its horizon', () => {
    const due = (threshold: number, horizon = 2000) => driftForecast(input({ threshold, horizon })).dueUsage;
    expect(due(0.02)!).toBeLessThanOrEqual(due(0.2)!);
    expect(due(1)).toBeNull();
    expect(due(0.1, 10)).toBeNull();
    expect(due(0)).toBe(0);
  });

  it('is not made of nothing, nor of what has no spread at all', () => {
    expect(() => driftForecast(input({ observations: [] }))).toThrow(RangeError);
    expect(() =>
      driftForecast(input({ operatorSd: 0, observations: [{ usage: 0, lo: 0.1, hi: 0.1 }] })),
    ).toThrow(RangeError);
  });
});

describe('the day a recheck is due', () => {
  const from = { day: '2031-01-10', usage: 100 };
  const someLog = fc
    .array(fc.record({ after: fc.integer({ min: 1, max: 60 }), ran: fc.integer({ min: 0, max: 40 }) }), {
      minLength: 3,
      maxLength: 10,
    })
    .map((steps) => {
      let [day, usage] = ['2030-06-01', 0];
      return steps.map(({ after, ran }) => {
        day = addDays(day, after);
        usage += ran;
        return { day, usage };
      });
    });

  it('is no earlier by slow running than by fast, and never after the date that was planned', () => {
    fc.assert(
      fc.property(someLog, fc.integer({ min: 1, max: 400 }), (log, afterDays) => {
        const { earliestDay, expectedDay, latestDay, dueDate } = recheckDue({
          ...{ from, log, step: { afterUsage: 50, afterDays } },
        });
        expect(earliestDay! <= expectedDay!).toBe(true);
        expect(expectedDay! <= latestDay!).toBe(true);
        expect(latestDay! <= dueDate!).toBe(true);
      }),
    );
  });

  it('comes before the season, on its own day only next year, and in February whatever the year', () => {
    const before = (day: string, season: string) =>
      recheckDue({
        from: { day, usage: 0 },
        step: { afterUsage: null, afterDays: null, before: season },
        log: [],
      }).dueDate;
    expect(before('2031-04-14', '04-15')).toBe('2031-04-15');
    expect(before('2031-04-15', '04-15')).toBe('2032-04-15');
    expect(before('2030-12-01', '02-29')).toBe('2031-02-28');
    expect(() => recheckDue({ from, step: { afterUsage: null, afterDays: null }, log: [] })).toThrow(
      RangeError,
    );
  });
});

describe('what the shop’s own engines say', () => {
  it('is nothing under five, and their mean where they agree', () => {
    const all = (count: number) => ({
      estimates: Array.from({ length: count }, () => ({ value: -0.00003, se: 0.00001 })),
    });
    expect(fleetPrior(all(4))).toEqual({ count: 4, mean: null, betweenSd: null, predictiveSd: null });
    const { mean, betweenSd, predictiveSd } = fleetPrior(all(9));
    expect(mean).toBeCloseTo(-0.00003, 12);
    expect(betweenSd).toBe(0);
    expect(predictiveSd).toBeCloseTo(0.00001 / 3, 12);
    expect(() => fleetPrior({ estimates: [{ value: 1, se: 0 }] })).toThrow(RangeError);
  });

  it('names the odd point, whichever it is, and accuses no other for it', () => {
    fc.assert(
      fc.property(fc.nat(7), (odd) => {
        const points = Array.from({ length: 8 }, (_, index) => ({
          key: String(index),
          perUnit: index === odd ? -0.0003 : -0.00003 + index * 1e-6,
          se: 0.00001,
        }));
        const { points: found } = unlike({ points, betweenSd: 0.00001, alpha: 0.02 });
        expect(found.filter((point) => point.unlike).map(({ key }) => key)).toEqual([String(odd)]);
        expect(found.map(({ key }) => key)).toEqual(points.map(({ key }) => key));
      }),
    );
  });
});

describe('what a hand adds', () => {
  const at = (mm: number) => ({ lo: mm - 0.0025, hi: mm + 0.0025 });

  it('is reckoned with from six pairs on, where it is clearly there', () => {
    const pairs = (count: number, shift: (index: number) => number) =>
      Array.from({ length: count }, (_, index) => ({ before: at(0.2), after: at(0.2 + shift(index)) }));
    expect(lockShift({ pairs: pairs(5, () => 0.02) }).use).toBe(0);
    expect(lockShift({ pairs: pairs(6, (index) => 0.02 + index * 0.001) }).use).toBeCloseTo(0.0225, 9);
    expect(lockShift({ pairs: pairs(8, (index) => (index % 2 ? 0.02 : -0.02)) }).use).toBe(0);
  });

  it('keeps a plan twice its spread inside the band, once ten looks say so', () => {
    const looks = (count: number, apart: number) =>
      Array.from({ length: count }, (_, index) => ({
        first: at(0.2),
        second: at(0.2 + (index % 2 ? apart : -apart)),
      }));
    expect(feelSpread({ looks: looks(9, 0.01) }).guard).toBe(0.004);
    const { sd, guard, bias } = feelSpread({ looks: looks(10, 0.01) });
    expect(guard).toBeCloseTo(2 * sd!, 12);
    expect(bias).toBeCloseTo(0, 12);
    expect(feelSpread({ looks: looks(12, 0) }).guard).toBe(0.002);
  });
});

describe('the day that stands for a recheck', () => {
  const none = {
    ...{ benchDay: null, expectedDay: null, dueDate: null, dueUsage: null, dueCycles: null },
    ...{ running: 100, heatCycles: 4 },
  };
  const today = '2031-03-10';
  it.each([
    [
      { benchDay: '2031-03-12', expectedDay: '2031-03-20' },
      '2031-03-12',
      'on the bench 12 Mar 2031, in 2 days',
    ],
    // a bench day that has gone by is no answer
    [{ benchDay: '2031-03-01', expectedDay: '2031-03-20' }, '2031-03-20', 'in 10 days'],
    [{ expectedDay: '2031-03-31', dueDate: '2031-03-31' }, '2031-03-31', 'in 21 days'],
    // its meter was read long ago: nobody knows that it is late
    [
      { expectedDay: '2031-03-09', dueDate: '2031-03-30', dueUsage: 110 },
      today,
      'reached by now, as it is used: read its meter',
    ],
    [{ expectedDay: '2031-03-01', dueDate: '2031-03-30', dueUsage: 88.5 }, today, '11.5 hours over'],
    [{ dueCycles: 3 }, today, '1 heat cycle over'],
    [{ expectedDay: '2031-03-01', dueDate: '2031-03-09', dueUsage: 110 }, '2031-03-09', '1 day late'],
    [{ expectedDay: today }, today, 'today'],
  ])('of %o is %s: %s', (known, day, words) => {
    expect(recheckDay({ ...none, ...known }, today)?.day).toBe(day);
    expect(recheckDayInWords({ ...none, ...known }, today, 'hours')).toBe(words);
  });

  it('is not said where nothing gives one, and in a letter only what its date does not say', () => {
    expect(recheckDay(none, today)).toBeNull();
    expect(recheckDayInWords(none, today, 'hours')).toBe('');
    const letter = (known: object) => recheckDayInLetter({ ...none, ...known }, today);
    expect(letter({})).toBe('');
    expect(letter({ expectedDay: '2031-03-31', dueDate: '2031-03-31' })).toBe('');
    expect(letter({ expectedDay: '2031-03-20', dueDate: '2031-03-31' })).toContain('about 20 Mar 2031');
    expect(letter({ benchDay: '2031-03-12' })).toBe('It is planned on our bench for 12 Mar 2031.');
    expect(letter({ expectedDay: '2031-03-01' })).toContain('read its meter');
    expect(letter({ dueDate: '2031-03-01' })).toBe('');
  });
});

describe('the next check in words', () => {
  const meter = { usage: 20, running: 5020, usageUnit: 'hours' };
  it('says what the meter will show, every way it comes due, and "first" only where there are several', () => {
    expect(nextCheckInWords({ dueDate: null, dueUsage: 5119.7 }, meter)).toBe('at 119.7 hours');
    expect(nextCheckInWords({ dueDate: '2031-03-01', dueUsage: 5100, season: 'first frost' }, meter)).toBe(
      'by 1 Mar 2031, before first frost or at 100 hours, whichever is first',
    );
    expect(nextCheckInWords({ dueDate: null, dueUsage: null, dueCycles: 3 }, meter)).toBe('at 3 heat cycles');
    expect(nextCheckInWords({ dueDate: null, dueUsage: null }, meter)).toBeNull();
    expect(nextCheckInWords({ dueDate: null, dueUsage: 4990 }, meter)).toBe('30 hours ago');
    expect(comesInWords('hot')).not.toContain('overnight');
  });
});

describe('a setting', () => {
  const built = (settings: object[], readings: object[]) =>
    ({
      sheet: { pattern: shims('under-bucket') },
      settings: settings as never,
      rounds: [{ kind: 'as-found' as const, readings }],
    }) as unknown as Parameters<typeof leftByPiece>[0];
  const point = {
    key: '1Ia',
    role: 'intake' as const,
    limits: limitsFromMm({ min: 0.15, max: 0.2, allowOver: 0 }),
  };
  const found = { ...reading('1Ia', 10, 'tight'), lo: 0.07, hi: 0.08, floor: true };
  const fitted = { ...setting('1Ia', 20, 'fitted'), installed: 2.25, fitted: 2.15 };

  it('by a piece left what was found and the difference of the two', () => {
    expect(leftByPiece(built([fitted], [found]), point)).toEqual({ lo: 0.17, hi: 0.18 });
    expect(leftByPiece(built([], [found]), point)).toBeNull();
    expect(leftByPiece(built([{ ...fitted, installed: null }], [found]), point)).toBeNull();
    expect(leftByPiece(built([fitted], []), point)).toBeNull();
    // what was read after it was fitted is not what was there before
    expect(leftByPiece(built([fitted], [{ ...found, takenAt: at(30) }]), point)).toBeNull();
  });

  it('narrows what its point was proved to be, where the two meet', () => {
    expect(firstKnown({ lo: 0.15, hi: 0.2 }, [{ lo: 0.17, hi: 0.18 }, null])).toEqual({ lo: 0.17, hi: 0.18 });
    expect(firstKnown({ lo: 0.15, hi: 0.2 }, [{ lo: 0.25, hi: 0.26 }])).toEqual({ lo: 0.15, hi: 0.2 });
  });
});
