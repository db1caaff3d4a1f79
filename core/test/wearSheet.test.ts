// Long because every way a figure comes to a grade is tried on the same three engines and the same limits.
import { torqueShown } from '../assembly/index.ts';
import { figureShown, figureTyped, METRIC, systemOf, unitShown, type ShownIn } from '../length/index.ts';
import fc from 'fast-check';
import { slipWarning, nearOf } from '../wear/typedFigures.ts';
import { describe, expect, it } from 'vitest';
import { currentLines, type Entry } from '../builds/index.ts';
import {
  camsOf,
  gearParts,
  journalsOf,
  lashPoints,
  lobesOf,
  valvesOf,
  type Pattern,
} from '../sheets/index.ts';
import {
  CHARACTERISTICS,
  characteristicOf,
  characteristicsFor,
  DAMAGE,
  limitComplaint,
  figureWarning,
  figuresAt,
  hollowAt,
  LIMIT_KINDS,
  limitAt,
  parseFigures,
  PARTS,
  partDispositions,
  placesOf,
  wearAt,
  wearBetween,
  WEAR_FEATURES,
  wearKey,
  wearSheetOf,
  type FigureLine,
  type GivenLimit,
  type LimitKey,
  type WearLine,
} from '../wear/index.ts';
import { inlineFour, inlineSix, vTwelve } from './patterns.ts';

const limit = (part: LimitKey, more: Partial<GivenLimit>): GivenLimit => ({
  ...{ part, of: 'both', place: '', nominal: null, limit: null, min: null, max: null, source: '' },
  ...more,
});
const figure = (
  item: string,
  place: string,
  field: string,
  values: number[],
  more: Partial<FigureLine> = {},
) => ({
  ...{ kind: 'figure' as const, item, place, field, values, asTyped: values.join(' ') },
  ...{ how: 'measured' as const, set: 'found' as const, doubtKept: false },
  ...more,
});
let clock = 0;
const entry = (...lines: WearLine[]): Entry<WearLine> => ({
  ...{ id: String((clock += 1)), by: 'Tobin Hask', lines },
  at: new Date(1_700_000_000_000 + clock * 1000).toISOString(),
});
const sheetOf = (lines: WearLine[], limits: GivenLimit[] = []) => wearSheetOf([entry(...lines)], limits);
const at = (pattern: Pattern, key: string, place: string) => {
  const item = characteristicOf(key)!;
  return [item, placesOf(pattern, item).find((each) => each.key === place)!] as const;
};
const LIMITS = [
  limit('lobe-lift', { of: 'intake', nominal: 8.62, limit: 8.45 }),
  limit('stem-guide', { nominal: 0.03, limit: 0.08 }),
  limit('stem-guide', { of: 'exhaust', nominal: 0.045, limit: 0.1 }),
  limit('valve-margin', { nominal: 1.2, limit: 0.7 }),
  limit('seat-width', { min: 1.1, max: 1.8 }),
  limit('spring-force', { limit: 165 }),
  limit('spring-bind', { limit: 1 }),
  limit('compression', { limit: 9.5 }),
  limit('compression-spread', { limit: 12 }),
  limit('leak-down-watch', { limit: 10 }),
  limit('leak-down', { limit: 20 }),
];

/** A screw over a pushrod, whose rocker lifts the valve half as much again as the lobe lifts. */
const PUSHROD: Pattern['means'] = {
  ...{ kind: 'screw', end: 'pushrod', pitch: 1, rockerRatio: 1.5, locking: 'lock-nut', torqueNm: null },
};

describe('the places of a valve train', () => {
  it('are every valve there is, and under a bridge a pair to a lash point', () => {
    expect(valvesOf(inlineFour)).toHaveLength(16);
    expect(
      valvesOf(inlineFour)
        .filter(({ point }) => point === '3E')
        .map(({ key }) => key),
    ).toEqual(['3Ea', '3Eb']);
    expect(valvesOf(vTwelve).every(({ key, point }) => key === point)).toBe(true);
  });

  it('have every lobe on one cam, whatever the engine', () => {
    for (const pattern of [inlineFour, inlineSix, vTwelve]) {
      const lobes = camsOf(pattern).flatMap((cam) => lobesOf(pattern, cam));
      expect(lobes.toSorted()).toEqual(
        lashPoints(pattern)
          .map(({ key }) => key)
          .toSorted(),
      );
    }
    expect(camsOf({ ...inlineFour, camsAbove: 'one' })).toEqual(['cam']);
    expect(camsOf({ ...inlineFour, camsAbove: 'two' })).toEqual(['intake cam', 'exhaust cam']);
    expect(camsOf(vTwelve)).toEqual(['intake cam A', 'exhaust cam A', 'intake cam B', 'exhaust cam B']);
    expect(journalsOf(vTwelve, 'intake cam B')).toHaveLength(7);
  });

  it('are those of its own gear: pushrods only where there are some', () => {
    const pushrods: Pattern = { ...inlineSix, means: PUSHROD };
    expect(gearParts(pushrods)).toEqual({ rockers: true, pushrods: true, followers: true, camIn: 'block' });
    expect(gearParts(inlineFour)).toEqual({
      rockers: false,
      pushrods: false,
      followers: true,
      camIn: 'head',
    });
    const measured = (pattern: Pattern) => characteristicsFor(pattern).map(({ key }) => key);
    expect(measured(pushrods)).toContain('pushrod-runout');
    expect(measured(pushrods)).not.toContain('piece-in');
    expect(measured(inlineFour)).not.toContain('rocker-bush');
    expect(measured({ ...inlineFour, camDrive: 'gears' })).not.toContain('chain-stretch');
  });

  it('give every characteristic somewhere to be measured, and a part that is replaced', () => {
    for (const item of characteristicsFor(inlineFour)) {
      expect(placesOf(inlineFour, item).length, item.key).toBeGreaterThan(0);
      expect(PARTS[item.part]).toBeDefined();
      expect(new Set(item.fields.map(({ key }) => key)).size).toBe(item.fields.length);
    }
    const again = new Set<string>(Object.values(PARTS).flatMap((part) => [...part.measureNew]));
    for (const key of again) expect(characteristicOf(key), key).toBeDefined();
  });
});

describe('a limit', () => {
  it('that is meant most closely holds: a place before a cylinder before a role before all', () => {
    const place = { key: '3E', cylinder: '3', role: 'exhaust' as const };
    const all = [
      limit('valve-margin', { place: '3E', limit: 1 }),
      limit('valve-margin', { place: '3', limit: 2 }),
      limit('valve-margin', { of: 'exhaust', limit: 3 }),
      limit('valve-margin', { limit: 4 }),
    ];
    for (let from = 0; from < all.length; from += 1)
      expect(limitAt(all.slice(from), 'valve-margin', place)?.limit).toBe(from + 1);
    expect(
      limitAt([limit('valve-margin', { of: 'intake', limit: 1 })], 'valve-margin', place),
    ).toBeUndefined();
    // of two alike the later is the one that was added since
    expect(limitAt([all[3]!, limit('valve-margin', { limit: 5 })], 'valve-margin', place)?.limit).toBe(5);
  });

  it('lies on the side the part wears to', () => {
    expect(limitComplaint(limit('spring-length', { nominal: 45, limit: 46 }))).toMatch(/shrinks/);
    expect(limitComplaint(limit('stem-guide', { nominal: 0.05, limit: 0.03 }))).toMatch(/grows/);
    expect(limitComplaint(limit('stem-guide', { nominal: 0.05, limit: 0.05 }))).toMatch(/differ/);
    expect(limitComplaint(limit('seat-width', { min: 2, max: 1 }))).toMatch(/above/);
    expect(limitComplaint(limit('seat-width', { limit: 1 }))).not.toBeNull();
    expect(limitComplaint(limit('lobe-lift', {}))).not.toBeNull();
    for (const good of LIMITS) expect(limitComplaint(good), good.part).toBeNull();
  });
});

describe('what was measured at a place', () => {
  const grade = (pattern: Pattern, key: string, place: string, figures: Record<string, number[]>) => {
    const lines = Object.entries(figures).map(([name, values]) => figure(key, place, name, values));
    return wearAt(sheetOf(lines, LIMITS), pattern, ...at(pattern, key, place));
  };

  it('is graded as the feature of its kind is', () => {
    const stations = [
      { height: 36.501, base: 28 },
      { height: 36.6, base: 28.01 },
    ];
    const lobe = WEAR_FEATURES.lobe({ stations, specLift: 8.62, minLift: 8.45 });
    expect(grade(inlineFour, 'lobe', '1Ia', { height: [36.501, 36.6], base: [28, 28.01] })).toMatchObject({
      verdict: lobe.verdict,
      used: lobe.used,
      derived: [{ value: lobe.lift }, { value: lobe.loss }, { value: lobe.taper }],
    });
    const stem = WEAR_FEATURES['stem-guide']({
      ...{ stem: [6.97, 6.95], guide: [7.01, 7.03] },
      clearance: { nominal: 0.03, limit: 0.08 },
    });
    const seen = grade(inlineFour, 'stem-guide', '1Ia', { stem: [6.97, 6.95], guide: [7.01, 7.03] })!;
    expect(seen).toMatchObject({ verdict: stem.verdict, missing: [] });
    expect(seen.used).toBeCloseTo(stem.used, 12);
    // the exhaust's own limit is wider
    const exhaust = grade(inlineFour, 'stem-guide', '1Ea', { stem: [6.97, 6.95], guide: [7.01, 7.03] })!;
    expect(exhaust.used!).toBeLessThan(seen.used!);
    expect([seen.verdict, exhaust.verdict]).toEqual(['watch', 'keep']);
    expect(grade(inlineFour, 'seat-width', '1Ia', { value: [1.2, 1.9] })?.verdict).toBe('replace');
    expect(grade(inlineFour, 'seat-width', '1Ia', { value: [1.2, 1.7] })?.verdict).toBe('keep');
  });

  it('is as bad as its worst reading: one more never makes it better', () => {
    const order = [null, 'keep', 'watch', 'replace'];
    const margin = fc.integer({ min: 300, max: 1500 }).map((thousandths) => thousandths / 1000);
    fc.assert(
      fc.property(fc.array(margin, { minLength: 1, maxLength: 3 }), margin, (values, more) => {
        const before = grade(inlineFour, 'valve-margin', '1Ia', { value: values })!;
        const after = grade(inlineFour, 'valve-margin', '1Ia', { value: [...values, more] })!;
        expect(order.indexOf(after.verdict)).toBeGreaterThanOrEqual(order.indexOf(before.verdict));
      }),
    );
  });

  it('says what limit is missing, and grades nothing then', () => {
    expect(grade(inlineFour, 'cam-runout', 'intake cam', { value: [0.02] })).toMatchObject({
      verdict: null,
      missing: ['cam-runout'],
    });
    // a limit without a nominal figure still says whether a part is past it
    const sheet = sheetOf(
      [figure('valve-margin', '1Ia', 'value', [0.6])],
      [limit('valve-margin', { limit: 0.7 })],
    );
    expect(wearAt(sheet, inlineFour, ...at(inlineFour, 'valve-margin', '1Ia'))).toMatchObject({
      verdict: 'replace',
      used: null,
    });
  });

  it('needs every figure its feature needs, and none is made up', () => {
    expect(grade(inlineFour, 'stem-guide', '1Ia', { stem: [6.97] })).toBeNull();
    expect(grade(inlineFour, 'lobe', '1Ia', { height: [36.5] })).toBeNull();
    expect(grade(inlineFour, 'spring-force', '1Ia', { 'height-1': [40], 'force-1': [200] })).toBeNull();
    const loads = { 'height-1': [36], 'force-1': [180], 'height-2': [28], 'force-2': [400], installed: [36] };
    const spring = grade(inlineFour, 'spring-force', '1Ia', { ...loads, bind: [26.8] })!;
    expect(spring.verdict).toBe('replace');
    expect(spring.derived.find(({ label }) => label === 'room before bind')?.value).toBeCloseTo(
      36 - 8.62 - 26.8,
    );
    expect(grade(inlineFour, 'spring-force', '1Ia', loads)?.verdict).toBe('keep');
    // the valve is lifted by the rocker's ratio more than the lobe lifts: half a millimetre of room, and not three and a half
    const rocked: Pattern = { ...inlineFour, roleMeans: {}, means: PUSHROD };
    const room = grade(rocked, 'spring-force', '1Ia', { ...loads, bind: [22] })!.derived;
    expect(room.find(({ label }) => label === 'room before bind')?.value).toBeCloseTo(36 - 1.5 * 8.62 - 22);
  });

  it('is graded cylinder beside cylinder where it is a compression', () => {
    const lines = ['1', '2', '3', '4'].map((place, index) =>
      figure('compression', place, 'value', [[12, 11.8, 10.4, 9][index]!]),
    );
    const sheet = sheetOf(lines, LIMITS);
    const verdicts = ['1', '2', '3', '4'].map(
      (place) => wearAt(sheet, inlineFour, ...at(inlineFour, 'compression', place))?.verdict,
    );
    expect(verdicts).toEqual(['keep', 'keep', 'replace', 'replace']);
    const leak = (percent: number) => grade(inlineFour, 'leak-down', '1', { value: [percent] })?.verdict;
    expect([8, 15, 25].map(leak)).toEqual(['keep', 'watch', 'replace']);
  });

  it('may be judged by a gauge or by eye, and a gauge that will not go outweighs figures', () => {
    const looked = (how: FigureLine['how']) =>
      wearAt(
        sheetOf([figure('stem-guide', '1Ia', 'guide', [], { how })], LIMITS),
        inlineFour,
        ...at(inlineFour, 'stem-guide', '1Ia'),
      );
    expect(looked('sound')).toMatchObject({ verdict: 'keep', by: 'eye' });
    expect(looked('gauge-goes')).toMatchObject({ verdict: 'keep', by: 'gauge' });
    expect(looked('gauge-wont')).toMatchObject({ verdict: 'replace', by: 'gauge' });
    expect(looked('taken-back')).toBeNull();
  });

  it('may be something no figure says: a leak test is sound, or is not', () => {
    const tried = (how: FigureLine['how']) =>
      partDispositions(sheetOf([figure('leak-test', '1Ia', 'value', [], { how })]), inlineFour).find(
        ({ part, place }) => part === 'seat' && place === '1Ia',
      )?.verdict;
    expect(tried('sound')).toBe('keep');
    expect(tried('gauge-wont')).toBe('replace');
    // a figure says nothing of it
    const typed = sheetOf([figure('leak-test', '1Ia', 'value', [0.1])]);
    expect(wearAt(typed, inlineFour, ...at(inlineFour, 'leak-test', '1Ia'))).toBeNull();
  });

  it('is that of the part fitted since, where one was', () => {
    const lines = [
      figure('valve-margin', '1Ia', 'value', [0.5]),
      figure('valve-margin', '1Ia', 'value', [1.2], { set: 'fitted' }),
    ];
    expect(
      wearAt(sheetOf(lines, LIMITS), inlineFour, ...at(inlineFour, 'valve-margin', '1Ia')),
    ).toMatchObject({
      verdict: 'keep',
      set: 'fitted',
    });
  });
});

describe('a wear sheet', () => {
  it('has of every figure the one taken last, in whatever order it came in', () => {
    const lines = fc.array(
      fc.record({
        place: fc.constantFrom('1Ia', '1Ib', '2Ia'),
        value: fc.integer({ min: 1, max: 99 }),
        second: fc.nat(50),
      }),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(lines, (all) => {
        const entries = all.map(({ place, value, second }, index): Entry<WearLine> => ({
          ...{ id: String(index), by: 'x' },
          at: new Date(second * 1000 * 100 + index).toISOString(),
          lines: [figure('valve-margin', place, 'value', [value])],
        }));
        const forth = currentLines(entries, wearKey);
        const back = currentLines(entries.toReversed(), wearKey);
        expect([...forth].toSorted()).toEqual([...back].toSorted());
        for (const { line, at: when } of forth.values())
          for (const other of entries)
            if (wearKey(other.lines[0]!) === wearKey(line)) expect(other.at <= when).toBe(true);
      }),
    );
  });

  it('takes a figure back without losing it', () => {
    const sheet = wearSheetOf(
      [
        entry(figure('valve-margin', '1Ia', 'value', [0.5])),
        entry(figure('valve-margin', '1Ia', 'value', [], { how: 'taken-back' })),
      ],
      LIMITS,
    );
    expect(figuresAt(sheet, characteristicOf('valve-margin')!, '1Ia', 'found')).toEqual({});
    expect(sheet.current.get('figure found valve-margin 1Ia value')?.before?.line).toMatchObject({
      values: [0.5],
    });
  });

  it('sums up what becomes of each part: the worst that was found, unless a person says', () => {
    const measured: WearLine[] = [
      figure('valve-margin', '1Ia', 'value', [0.5]),
      figure('valve-margin', '1Ib', 'value', [1.15]),
      figure('lobe', '1Ia', 'height', [36.4]),
      figure('lobe', '1Ia', 'base', [28]),
      {
        kind: 'mark',
        part: 'follower',
        place: '2Ia',
        damage: 'scuffing',
        note: 'half the crown',
        gone: false,
      },
      { kind: 'mark', part: 'follower', place: '2Ib', damage: 'cracked', note: '', gone: true },
    ];
    const of = (lines: WearLine[], part: string, place: string) =>
      partDispositions(sheetOf(lines, LIMITS), inlineFour).find(
        (each) => each.part === part && each.place === place,
      );
    expect(of(measured, 'valve', '1Ia')).toMatchObject({ verdict: 'replace', decided: null });
    expect(of(measured, 'valve', '1Ia')?.reasons).toEqual(['Margin 1Ia: 140 % of its allowance']);
    expect(of(measured, 'valve', '1Ib')).toMatchObject({ verdict: 'keep', reasons: [] });
    expect(of(measured, 'cam', 'intake cam')).toMatchObject({ verdict: 'replace' });
    expect(of(measured, 'follower', '2Ia')).toMatchObject({
      verdict: 'replace',
      reasons: ['Scuffed: half the crown'],
    });
    expect(of(measured, 'follower', '2Ib')).toBeUndefined();
    const said = (fate: 'keep' | 'undecided'): WearLine => ({
      ...{ kind: 'fate', part: 'valve', place: '1Ia', fate, order: 'none', reason: 'faced once more' },
    });
    expect(of([...measured, said('keep')], 'valve', '1Ia')?.verdict).toBe('keep');
    expect(of([...measured, said('undecided')], 'valve', '1Ia')?.verdict).toBe('replace');
  });

  it('has a replaced part measured again before it is fitted', () => {
    const replaced: WearLine = {
      ...{ kind: 'fate', part: 'seat', place: '1Ia', fate: 'replace', order: 'in-hand', reason: '' },
    };
    const again = (...lines: WearLine[]) =>
      partDispositions(sheetOf([replaced, ...lines]), inlineFour).find(({ place }) => place === '1Ia')!
        .measureNew;
    expect(again().toSorted()).toEqual(PARTS.seat.measureNew.toSorted());
    expect(again(figure('seat-width', '1Ia', 'value', [1.3], { set: 'fitted' }))).not.toContain('seat-width');
    expect(again(figure('seat-width', '1Ib', 'value', [1.3], { set: 'fitted' }))).toContain('seat-width');
  });

  it('knows where a hollow hides the gap from a flat blade', () => {
    const mark = (gone: boolean): WearLine => ({
      ...{ kind: 'mark', part: 'rocker', place: '3E', damage: 'hollow', note: '', gone },
    });
    expect([...hollowAt(sheetOf([mark(false)]), inlineFour)]).toEqual(['3E']);
    expect([...hollowAt(sheetOf([mark(true)]), inlineFour)]).toEqual([]);
    // one stem of a bridge is its point; a part that was fitted new has none; a seat lies where no blade goes
    expect([...hollowAt(sheetOf([{ ...mark(false), place: '1Eb' } as WearLine]), inlineFour)]).toEqual([
      '1E',
    ]);
    const renewed: WearLine = {
      ...{ kind: 'fate', part: 'rocker', place: '3E', fate: 'replace', order: 'fitted', reason: '' },
    };
    expect([...hollowAt(sheetOf([mark(false), renewed]), inlineFour)]).toEqual([]);
    expect([...hollowAt(sheetOf([{ ...mark(false), part: 'seat' } as WearLine]), inlineFour)]).toEqual([]);
    expect(Object.keys(DAMAGE)).toContain('hollow');
  });
});

const INCH: ShownIn = { length: 'thou', system: 'inch' };

describe('what is typed into a wear sheet', () => {
  const field = { unit: 'mm' as const, most: 3 };

  it('is one figure or several, with points or commas, in any unit', () => {
    expect(parseFigures('6,98 6.97; 0.275in', field, METRIC)).toEqual({
      how: 'measured',
      values: [6.98, 6.97, 6.985],
    });
    expect(parseFigures('275', field, INCH)).toEqual({ how: 'measured', values: [6.985] });
    expect(parseFigures('182,5', { unit: 'N', most: 1 }, METRIC)).toEqual({
      how: 'measured',
      values: [182.5],
    });
    expect(parseFigures('0.27 thou', field, METRIC)).toEqual(parseFigures('0.27thou', field, METRIC));
    // a pressure or force is typed in any unit, a bare one in the one that is shown
    const pressure = { unit: 'bar' as const, most: 2 };
    expect(parseFigures('135 psi 9.3', pressure, METRIC)).toEqual({ how: 'measured', values: [9.3079, 9.3] });
    expect(parseFigures('135 930 kPa', pressure, INCH)).toEqual({ how: 'measured', values: [9.3079, 9.3] });
    expect(parseFigures('41', { unit: 'N', most: 1 }, INCH)).toEqual({ how: 'measured', values: [182.3771] });
    expect(parseFigures('1500 psi', pressure, METRIC)).toMatchObject({
      error: expect.stringContaining('over 100 bar'),
    });
    expect(parseFigures('', field, METRIC)).toEqual({ how: 'taken-back', values: [] });
    expect(parseFigures('Sound', field, METRIC)).toEqual({ how: 'sound', values: [] });
    expect(parseFigures('go', field, METRIC)).toEqual({ how: 'gauge-goes', values: [] });
    expect(parseFigures('won’t', field, METRIC)).toEqual({ how: 'gauge-wont', values: [] });
  });

  it('is shown as it is typed, in the system of its sheet or of the unit that is read in', () => {
    expect([systemOf('thou', null), systemOf('thou', 'metric'), systemOf('mm', 'inch')]).toEqual([
      ...['inch', 'metric', 'inch'],
    ]);
    expect([
      unitShown('bar', INCH),
      unitShown('N', METRIC),
      unitShown('mm', INCH),
      unitShown('%', INCH),
    ]).toEqual([...['psi', 'N', 'thou', '%']]);
    expect([torqueShown([35], 'inch'), torqueShown([10, 12], 'inch'), torqueShown([35], 'metric')]).toEqual([
      ...['26 lbf·ft', '89–106 lbf·in', '35 N·m'],
    ]);
    fc.assert(
      fc.property(
        fc.constantFrom('bar' as const, 'N' as const, '°C' as const, '%' as const),
        fc.constantFrom(METRIC, INCH),
        fc.integer({ min: 0, max: 99 }),
        (unit, shown, value) => {
          const text = figureShown(value, unit, shown);
          const read = figureTyped(text, unit, shown);
          expect('value' in read && figureShown(read.value, unit, shown)).toBe(text);
        },
      ),
    );
  });

  it('is refused in words where it is neither', () => {
    for (const text of ['6.98 about', '-1', '1e3', '6.97 6.98 6.97 6.98', '6.98 N', '99999999'])
      expect(parseFigures(text, field, METRIC), text).toHaveProperty('error');
    expect(parseFigures('12 13', { unit: 'N', most: 1 }, METRIC)).toEqual({ error: 'one figure goes here' });
  });

  it('understands again what it wrote, whatever the figures', () => {
    const figures = fc.array(
      fc.integer({ min: 1, max: 9_999_999 }).map((tenths) => tenths / 10_000),
      {
        minLength: 1,
        maxLength: 3,
      },
    );
    fc.assert(
      fc.property(figures, (values) => {
        const text = values.map((value) => value.toFixed(4)).join(' ');
        const read = parseFigures(text, field, METRIC);
        expect('values' in read && read.values.map((one) => Math.round(one * 10_000))).toEqual(
          values.map((one) => Math.round(one * 10_000)),
        );
      }),
    );
  });

  it('is warned where it lies far from its like ones, with what was likely meant', () => {
    expect(slipWarning(69.8, 6.98, 'mm')).toMatchObject({ suggestion: 6.98 });
    expect(slipWarning(0.275, 6.98, 'mm')).toMatchObject({ suggestion: 6.985 });
    expect(slipWarning(1825, 180, 'N')).toMatchObject({ suggestion: 182.5 });
    expect(slipWarning(6.9, 6.98, 'mm')).toBeNull();
    expect(slipWarning(0.02, 0.01, 'mm')).toBeNull();
    expect(slipWarning(69.8, null, 'mm')).toBeNull();
    expect(nearOf([6.97])).toBeNull();
    expect(nearOf([6.97, 69, 6.98])).toBe(6.98);
  });
});

describe('a figure as it is typed', () => {
  const item = (key: string) => characteristicOf(key)!;
  const warning = (key: string, field: string, typed: number[], beside: Record<string, number[]> = {}) => {
    const lines = Object.entries(beside).map(([name, values]) => figure(key, '1I', name, values));
    const place = placesOf(inlineSix, item(key)).find((each) => each.key === '1I')!;
    const of = item(key).fields.find((each) => each.key === field)!;
    return figureWarning(
      sheetOf(lines, LIMITS),
      inlineSix,
      { set: 'found', item: item(key), field: of, place },
      typed,
    );
  };

  it('is held against its limits with what stands beside it, and asked about before it is graded', () => {
    // a nose of 36.17 typed without its point, and of nothing like it
    expect(warning('lobe', 'height', [361.7], { base: [28] })).toMatchObject({
      ...{ value: 361.7, suggestion: 36.17, against: 'limits', held: { part: 'lobe-lift' } },
    });
    expect(warning('lobe', 'base', [28], { height: [361.7] })).toMatchObject({ suggestion: null });
    expect(warning('lobe', 'height', [36.55], { base: [28] })).toBeNull();
    expect(warning('stem-guide', 'stem', [59.8], { guide: [6.02] })).toMatchObject({
      ...{ suggestion: 5.98, against: 'possible', swapped: false },
    });
    expect(warning('stem-guide', 'guide', [5.98], { stem: [6.02] })).toMatchObject({
      ...{ suggestion: null, against: 'possible', swapped: true },
    });
    expect(warning('stem-guide', 'guide', [6.02], { stem: [5.98] })).toBeNull();
    expect(warning('valve-margin', 'value', [11])).toMatchObject({ suggestion: 1.1 });
    expect(warning('valve-margin', 'value', [0.5])).toBeNull();
    expect(warning('seat-width', 'value', [13])).toMatchObject({ suggestion: 1.3 });
    // nothing is known to hold it against
    expect(warning('piece-in', 'value', [240])).toBeNull();
  });

  it('says nothing by a clearance under nothing, but where the source gives an interference', () => {
    const stems = (limits: GivenLimit[]) =>
      wearAt(
        sheetOf(
          [figure('stem-guide', '1I', 'stem', [6.02]), figure('stem-guide', '1I', 'guide', [5.98])],
          limits,
        ),
        inlineSix,
        item('stem-guide'),
        placesOf(inlineSix, item('stem-guide')).find(({ key }) => key === '1I')!,
      );
    expect(stems(LIMITS)).toMatchObject({ verdict: null, isImpossible: true });
    const press = limit('stem-guide', { nominal: -0.05, limit: 0.02 });
    expect(limitComplaint(press)).toBeNull();
    expect(stems([press])).toMatchObject({ verdict: 'keep', isImpossible: false });
    expect(limitComplaint(limit('valve-margin', { nominal: 1, limit: -0.1 }))).toContain('less than nothing');
  });

  it('has a limit of nothing for a limit', () => {
    const runout = (value: number) =>
      wearAt(
        sheetOf([figure('stem-runout', '1I', 'value', [value])], [limit('stem-runout', { limit: 0 })]),
        inlineSix,
        item('stem-runout'),
        placesOf(inlineSix, item('stem-runout')).find(({ key }) => key === '1I')!,
      )?.verdict;
    expect([runout(0), runout(0.01)]).toEqual(['keep', 'replace']);
  });
});

describe('the table of what is measured', () => {
  it('names every limit once that something is held against', () => {
    const used = new Set(CHARACTERISTICS.flatMap(({ limits }) => limits));
    for (const key of Object.keys(LIMIT_KINDS) as LimitKey[])
      if (key !== 'tip-grinding') expect(used.has(key), key).toBe(true);
    expect(new Set(CHARACTERISTICS.map(({ key }) => key)).size).toBe(CHARACTERISTICS.length);
  });
});

describe('what is measured build after build', () => {
  const fate = (part: 'guide' | 'spring', place: string): WearLine => ({
    ...{ kind: 'fate', part, place, fate: 'replace', order: 'fitted', reason: '' },
  });
  const stem = (stem: number, guide: number, set: 'found' | 'fitted' = 'found') => [
    figure('stem-guide', '1I', 'stem', [stem], { set }),
    figure('stem-guide', '1I', 'guide', [guide], { set }),
  ];
  const builds = (...lines: WearLine[][]) =>
    lines.map((each, index) => ({ running: 1000 * (index + 1), sheet: sheetOf(each, LIMITS) }));
  const trend = (...lines: WearLine[][]) => wearBetween(inlineSix, builds(...lines));

  it('is followed to its limit', () => {
    expect(trend(stem(5.97, 6), stem(5.96, 6))).toMatchObject([
      {
        part: 'stem-guide',
        before: [],
        seen: [{ usage: 1000 }, { usage: 2000 }],
        left: expect.closeTo(4000, 6),
      },
    ]);
    expect(trend(stem(5.97, 6))).toEqual([]);
  });

  it('begins again where the part was replaced, and shows what was found before', () => {
    const [first] = trend(
      stem(5.97, 6),
      [...stem(5.93, 6), ...stem(5.975, 6, 'fitted'), fate('guide', '1I')],
      stem(5.965, 6),
    );
    expect(first!.before.map((each) => each.toFixed(2))).toEqual(['0.03', '0.07']);
    expect(first!.seen.map(({ usage }) => usage)).toEqual([2000, 3000]);
    expect(first!.perUnit).toBeCloseTo(0.01 / 1000, 9);
    const [unmeasured] = trend(stem(5.97, 6), [...stem(5.93, 6), fate('guide', '1I')], stem(5.965, 6));
    expect(unmeasured).toMatchObject({ perUnit: null, seen: [{ usage: 3000 }] });
  });

  it('follows the figure that its limit is of: what a spring presses with, and not its rate', () => {
    const spring = (force: number) =>
      Object.entries({
        'height-1': 40,
        'force-1': force,
        'height-2': 30,
        'force-2': force + 300,
        installed: 40,
      }).map(([name, value]) => figure('spring-force', '1I', name, [value]));
    const [seated] = trend(spring(200), spring(190));
    expect(seated).toMatchObject({ part: 'spring-force', left: expect.closeTo(2500, 6) });
    expect(seated!.seen.map(({ measured }) => measured)).toEqual([200, 190]);
  });
});
