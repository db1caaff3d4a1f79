import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  assess,
  benchReach,
  bladesOf,
  compareLooks,
  foresee,
  goNoGo,
  intervalOf,
  isDecided,
  judge,
  limitsFromMm,
  mayBeBlade,
  narrowingBlade,
  nextBlade,
  parseTries,
  parseTry,
  stampOf,
  thicknessOf,
  withoutContradicted,
  type Try,
  conditionCautions,
  hotClock,
} from '../measuring/index.ts';

const blades = Array.from({ length: 36 }, (_, index) => (index + 5) / 100);
const spec = { min: 0.11, max: 0.19 };

describe('the blades of a set', () => {
  const set = {
    blades: [0.05, 0.1, 0.3, 0.4],
    missing: [0.1],
    worn: [0.05],
    measured: [{ blade: 0.3, is: 0.298 }],
  };
  const fan = bladesOf(set);

  it('are as thick as they measure, and those that are gone or worn are not gone by', () => {
    expect(fan).toEqual([
      { stamped: 0.05, is: 0.05, usable: false },
      { stamped: 0.1, is: 0.1, usable: false },
      { stamped: 0.3, is: 0.298, usable: true },
      { stamped: 0.4, is: 0.4, usable: true },
    ]);
  });

  it('are called what is stamped on them, and found by it again', () => {
    expect(fan.map(({ is }) => stampOf(fan, is))).toEqual(set.blades);
    expect(set.blades.map((blade) => thicknessOf(fan, blade))).toEqual(fan.map(({ is }) => is));
    const alike = bladesOf({ ...set, blades: [0.298, 0.3], worn: [0.298] });
    expect(stampOf(alike, 0.298)).toBe(0.3);
    expect([stampOf(fan, 0.77), thicknessOf(fan, 0.77)]).toEqual([0.77, 0.77]);
  });

  it('prove a gap by how thick they are: what the stamp would pass, the blade does not', () => {
    const spec = { min: 0.3, max: 0.4 };
    const owned = fan.filter(({ usable }) => usable).map(({ is }) => is);
    const goes = { thickness: thicknessOf(fan, 0.3), result: 'goes' as const };
    const wont = { thickness: thicknessOf(fan, 0.4), result: 'wont' as const };
    const judged = (tries: readonly (typeof goes | typeof wont)[]) =>
      judge(intervalOf({ kind: 'tries', tries, repeatability: 0.01 }), limitsFromMm(spec)).verdict;
    expect(judged([{ ...goes, thickness: 0.3 }, wont])).toBe('in-spec');
    expect(judged([goes, wont])).toBe('undecided-low');
    expect(goNoGo({ blades: owned, maxStack: 1, spec })?.go.thickness).not.toBe(0.298);
  });

  it('that measure far off what is stamped on them are others', () => {
    expect(mayBeBlade(0.3, 0.298)).toBe(true);
    expect(mayBeBlade(0.3, 0.32)).toBe(true);
    expect(mayBeBlade(0.3, 0.3201)).toBe(false);
    expect(mayBeBlade(0.01, 0)).toBe(false);
  });
});

describe('what a bench reaches', () => {
  const reach = (owned: readonly number[], maxStack: number, min: number, max: number) =>
    benchReach({ blades: owned, maxStack, spec: { min, max } });

  it('is settled by a stack at each limit, worked with near it, and not done without one in the band', () => {
    expect(reach([0.1, 0.2], 1, 0.1, 0.2)).toMatchObject({
      min: { reach: 'exact', by: { thickness: 0.1 }, short: 0 },
      max: { reach: 'exact', by: { thickness: 0.2 }, short: 0 },
    });
    expect(reach([0.12, 0.19], 1, 0.1, 0.2)).toMatchObject({
      min: { reach: 'near', short: 0.02 },
      max: { reach: 'near', short: 0.01 },
    });
    expect(reach([0.15], 1, 0.1, 0.2)).toMatchObject({ min: { reach: 'not', short: 0.05 } });
    expect(reach([0.05, 0.25], 1, 0.1, 0.2)).toMatchObject({
      min: { reach: 'not', by: null, short: 0.1 },
      max: { reach: 'not', by: null },
    });
    // held together two of them do it
    expect(reach([0.05, 0.25], 2, 0.1, 0.3).max).toMatchObject({
      reach: 'exact',
      by: { blades: [0.05, 0.25] },
    });
  });

  it('agrees with go and no-go: where both limits are settled, that pair is the two stacks', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 5, max: 60 }), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 2 }),
        fc.integer({ min: 5, max: 40 }),
        fc.integer({ min: 2, max: 20 }),
        (hundredths, maxStack, least, width) => {
          const spec = { min: least / 100, max: (least + width) / 100 };
          const owned = hundredths.map((one) => one / 100);
          const { min, max } = benchReach({ blades: owned, maxStack, spec });
          const pair = goNoGo({ blades: owned, maxStack, spec });
          expect(pair === null).toBe(min.by === null || min.by.thickness === max.by!.thickness);
          if (pair) expect([min.by, max.by]).toEqual([pair.go, pair.noGo]);
          for (const limit of [min, max])
            expect(limit.reach === 'exact').toBe(limit.by?.thickness === limit.at);
        },
      ),
    );
  });
});

describe('go and no-go', () => {
  it('names the two blades that prove a band, stacked where it must', () => {
    expect(goNoGo({ blades, maxStack: 1, spec })).toEqual({
      go: { blades: [0.11], thickness: 0.11 },
      noGo: { blades: [0.19], thickness: 0.19 },
    });
    expect(goNoGo({ blades: [0.05, 0.07, 0.18], maxStack: 2, spec })).toMatchObject({
      go: { blades: [0.05, 0.07], thickness: 0.12 },
      noGo: { blades: [0.18] },
    });
  });

  it('has no pair where the blades owned cannot prove the band', () => {
    expect(goNoGo({ blades: [0.1, 0.15, 0.2], maxStack: 1, spec })).toBeNull();
    expect(goNoGo({ blades: [], maxStack: 2, spec })).toBeNull();
  });

  it('proves the band whenever the one goes and the other will not', () => {
    const bench = fc.uniqueArray(fc.integer({ min: 3, max: 60 }), { minLength: 1, maxLength: 14 });
    fc.assert(
      fc.property(
        bench,
        fc.integer({ min: 5, max: 40 }),
        fc.integer({ min: 1, max: 20 }),
        (owned, min, width) => {
          const band = { min: min / 100, max: (min + width) / 100 };
          const pair = goNoGo({ blades: owned.map((blade) => blade / 100), maxStack: 2, spec: band });
          if (!pair) return true;
          const tries: Try[] = [
            { thickness: pair.go.thickness, result: 'goes' },
            { thickness: pair.noGo.thickness, result: 'wont' },
          ];
          return assess({ spec: band, reading: { kind: 'tries', tries } }).verdict === 'in-spec';
        },
      ),
    );
  });
});

describe('tries', () => {
  it('are foreseen: what each outcome would mean', () => {
    const foreseen = foresee([], 0.11, limitsFromMm(spec));
    expect(foreseen.map(({ result, verdict }) => [result, verdict])).toEqual([
      ['goes', 'undecided-high'],
      ['drags', 'undecided-low'],
      ['wont', 'tight'],
    ]);
  });

  it('that the newest contradicts are dropped, and the rest agree', () => {
    const tries: Try[] = [
      { thickness: 0.1, result: 'goes' },
      { thickness: 0.18, result: 'goes' },
      { thickness: 0.2, result: 'wont' },
      { thickness: 0.15, result: 'wont' },
    ];
    expect(withoutContradicted(tries)).toEqual([tries[0], tries[2], tries[3]]);
    expect(withoutContradicted([])).toEqual([]);
  });

  it('by the suggested blade always end: decided, or nothing more to tell', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (truth) => {
        const gap = truth / 1000 + 0.0003;
        const tries: Try[] = [];
        for (let step = 0; step < 12; step += 1) {
          const { lo, hi, verdict } = assess({ spec, reading: { kind: 'tries', tries } });
          const { test } = nextBlade({ blades, maxStack: 1, lo, hi, spec });
          if (isDecided(verdict) || !test) return true;
          tries.push({ thickness: test.thickness, result: test.thickness <= gap ? 'goes' : 'wont' });
        }
        return false;
      }),
    );
  });

  it('decide nothing without limits, contradict themselves all the same, and go on to the blade that narrows the most', () => {
    expect(judge({ lo: 1000, hi: 1100 }, null)).toEqual({ verdict: 'undecided', onLimit: false });
    expect(judge({ lo: 1200, hi: 1100 }, null).verdict).toBe('conflict');
    expect(foresee([], 0.2, null).map(({ verdict }) => verdict)).toEqual(Array(3).fill('undecided'));
    const next = (lo: number, hi: number | null, floor = lo > 0) =>
      nextBlade({ blades, maxStack: 2, lo, hi, floor, spec: null }).test;
    expect(next(0, null)).toBeNull();
    expect(next(0.2, null)).toEqual({ blades: [0.21], thickness: 0.21, limit: null });
    expect(next(0.1, 0.3)?.thickness).toBe(0.2);
    expect(next(0, 0.15)?.thickness).toBe(0.07);
    expect(next(0.1, 0.11)).toBeNull();
    // whatever the gap is, it ends between two blades that lie next to each other
    fc.assert(
      fc.property(fc.integer({ min: 510, max: 3990 }), (gap) => {
        let [lo, hi]: [number, number | null] = [0, 0.4];
        for (let tries = 0; ; tries += 1) {
          const test = next(lo, hi);
          if (!test) break;
          expect(tries).toBeLessThan(7);
          if (test.thickness * 1e4 <= gap) lo = test.thickness;
          else hi = test.thickness;
        }
        expect(hi - lo).toBeLessThan(0.0101 + (lo === 0 ? 0.05 : 0));
      }),
    );
  });

  it('are narrowed where a point is out: by halving, or by steps that double away from the band', () => {
    const out = { blades, maxStack: 1, spec: { min: 0.2, max: 0.26 }, enough: 0.02 };
    expect(narrowingBlade({ ...out, lo: 0.05, hi: 0.15 })?.thickness).toBe(0.1);
    // nothing bounds it below: a step of as much as it is out already
    expect(narrowingBlade({ ...out, lo: 0, hi: 0.1, floor: false })?.thickness).toBe(0.05);
    expect(narrowingBlade({ ...out, lo: 0.3, hi: null })?.thickness).toBe(0.34);
    // what may be in its band is decided first, and what contradicts itself is felt again
    expect(narrowingBlade({ ...out, lo: 0.1, hi: 0.25 })).toBeNull();
    expect(narrowingBlade({ ...out, lo: 0.3, hi: 0.1 })).toBeNull();
    expect(narrowingBlade({ ...out, blades: [0.5], lo: 0, hi: 0.2 })).toBeNull();
  });

  it.each([
    ['0.13', 'g', { thickness: 0.13, result: 'goes' }],
    ['5th', 'W', { thickness: 0.127, result: 'wont' }],
    [',2', 'd', { thickness: 0.2, result: 'drags' }],
    ['0.13', 'x', null],
    ['', 'g', null],
    ['0', 'g', { thickness: 0, result: 'goes' }],
    ['0', 'w', null],
    ['0', 'd', null],
    ['thick', 'g', null],
  ])('“%s” and %s', (text, key, one) => {
    expect(parseTry(text, key, 'mm')).toEqual(one);
  });

  it('are understood typed in full, one or several, and nothing else is', () => {
    const bracket = [
      { thickness: 0.22, result: 'goes' },
      { thickness: 0.23, result: 'wont' },
    ];
    for (const text of ['0.22g 0.23w', '0,22 g, 0,23 W', '.22g.23w', ' 0.22g;0.23 w ', '220um g 0.23mm w'])
      expect(parseTries(text, 'mm'), text).toEqual(bracket);
    // no blade goes, but it rocks across the gap
    expect(parseTries('0.03w 0g', 'mm')).toEqual([
      { thickness: 0.03, result: 'wont' },
      { thickness: 0, result: 'goes' },
    ]);
    expect(parseTries('9 thou d', 'mm')).toEqual([{ thickness: 0.2286, result: 'drags' }]);
    for (const text of ['0.22', '0.22 0.23', 'g', '0.22gw', 'good 0.22', '0.22x', '', '-0.2g', '0w'])
      expect(parseTries(text, 'mm'), text).toBeNull();
  });
});

describe('two looks at one point', () => {
  it('agree where some clearance fits both, and otherwise lie apart', () => {
    expect(compareLooks({ lo: 1300, hi: 1500 }, { lo: 1500, hi: 1600 })).toEqual({ agree: true, apart: 0 });
    expect(compareLooks({ lo: 1600, hi: null }, { lo: 1300, hi: 1500 })).toEqual({
      agree: false,
      apart: 100,
    });
    expect(compareLooks({ lo: 1300, hi: null }, { lo: 9000, hi: null }).agree).toBe(true);
  });
});

describe('the conditions of a round', () => {
  const cold = { condition: 'cold', temperature: { from: 10, to: 30 } } as const;
  const fine = { condition: 'cold', engineTempC: 18, hoursSinceRun: 20 } as const;

  it('are cautioned where they do not fit the sheet, and only there', () => {
    expect(conditionCautions(cold, fine)).toEqual([]);
    expect(conditionCautions(cold, { condition: null, engineTempC: null, hoursSinceRun: null })).toEqual([]);
    expect(conditionCautions(cold, { ...fine, hoursSinceRun: 2 })[0]).toMatch(/stopped 2 hours ago/);
    expect(conditionCautions(cold, { ...fine, engineTempC: 5 })[0]).toMatch(/from 10 to 30/);
    expect(
      conditionCautions({ condition: 'hot', temperature: null }, { ...fine, hoursSinceRun: 0 })[0],
    ).toMatch(/figures are hot/);
  });
});

describe('a clock from when an engine was shut down', () => {
  const at = '2031-01-01T10:00:00Z';
  const readiness = { coldHours: 12, hotMinutes: 30, barred: false, doorsMinutes: null, access: [] };
  const hot = { condition: 'hot' as const, temperature: null, pattern: { readiness } };
  const said = { engineTempC: 80, hoursSinceRun: 0.1, condition: 'hot' as const, at };
  const now = Date.parse('2031-01-01T10:12:30Z');

  it('counts what was said to have passed by then, and ends at the sheet’s time', () => {
    expect(hotClock(hot, [said], now)).toMatchObject({ minutes: 18, holds: 30, left: 12 });
    expect(hotClock(hot, [said], now + 3_600_000)).toMatchObject({ left: 0 });
    expect(hotClock({ ...hot, pattern: {} }, [said], now)).toMatchObject({ holds: null, left: null });
    expect(hotClock(hot, [{ ...said, hoursSinceRun: null }], now)).toBeNull();
    expect(hotClock({ ...hot, condition: 'cold' }, [said], now)).toBeNull();
  });

  it('is cold after the hours that the sheet says, and else after a night', () => {
    const cold = { condition: 'cold' as const, temperature: null };
    const ran = (hoursSinceRun: number) => ({ engineTempC: null, hoursSinceRun, condition: null });
    expect(conditionCautions(cold, ran(7))).toEqual([]);
    expect(conditionCautions({ ...cold, pattern: { readiness } }, ran(7))).toHaveLength(1);
    expect(conditionCautions({ ...cold, pattern: { readiness } }, ran(12))).toEqual([]);
    // where the sheet does not say, the shop does
    const shop = { ...cold, coldHours: 10 };
    expect(conditionCautions(shop, ran(9))[0]).toMatch(/cold after 10/);
    expect(conditionCautions({ ...shop, pattern: { readiness } }, ran(11))[0]).toMatch(/cold after 12/);
  });
});
