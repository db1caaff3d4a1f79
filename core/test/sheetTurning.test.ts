import { describe, expect, it } from 'vitest';
import { cautionsAt } from '../builds/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import {
  firstSchool,
  gonePastInWords,
  layOutWheel,
  marginOf,
  mayMeasurePoint,
  planStops,
  schoolsFor,
  spannedPoints,
  tableDifferences,
} from '../turning/index.ts';
import { inlineFour, inlineSix } from './patterns.ts';

/** A single whose exhaust opens at 126° and closes at 372° after firing. */
const single: Pattern = {
  ...inlineFour,
  layout: 'single',
  cylinders: [{ id: '1', bank: 'A', place: 1, firesAt: 0 }],
  brakes: [],
  marks: [0, 360],
};
const spanOf = (pattern: Pattern, key: string) =>
  spannedPoints(pattern).find(({ point }) => point.key === key)!.span;

describe('valve timing given at a lift', () => {
  it('keeps more clear of the ramps, 25° a millimetre, and 40° at the most', () => {
    const at = (lift: number | null) => marginOf({ ...single, timing: { ...single.timing, lift } });
    expect(marginOf(single)).toBe(15);
    expect([null, 0.1, 1, 3].map(at)).toEqual([15, 17.5, 40, 55]);
    const given = { ...single, timing: { ...single.timing, lift: 1 } };
    expect(mayMeasurePoint(single, '1E', 126 - 20)).toBe(true);
    expect(mayMeasurePoint(given, '1E', 126 - 20)).toBe(false);
    expect(layOutWheel(given)[0]!.length).toBe(layOutWheel(single)[0]!.length - 50);
  });

  it('never lets a stop be planned nearer a ramp than that', () => {
    const given = { ...inlineSix, timing: { ...inlineSix.timing, lift: 0.6 } };
    for (const { angle, points } of planStops(given, 'fewest').stops)
      for (const key of points) expect(mayMeasurePoint(given, key, angle), `${key} at ${angle}`).toBe(true);
  });
});

describe('a decompressor', () => {
  const lifted: Pattern = { ...single, decompressor: { role: 'exhaust', opens: 610, closes: 680 } };

  it('has its valve off the base circle from the first lift to the end of the last, over the side that leaves the firing TDC free', () => {
    expect(spanOf(single, '1E')).toEqual({ start: 126, length: 246 });
    expect(spanOf(lifted, '1E')).toEqual({ start: 126, length: 554 });
    const before = { ...single, decompressor: { role: 'exhaust' as const, opens: -60, closes: -10 } };
    expect(spanOf(before, '1E')).toEqual({ start: 126, length: 710 - 126 });
    const early = { ...single, decompressor: { role: 'exhaust' as const, opens: 20, closes: 60 } };
    expect(spanOf(early, '1E')).toEqual({ start: 20, length: 352 });
  });

  it('leaves the other side as it was, and the firing TDC to measure at', () => {
    expect(spanOf(lifted, '1Ia')).toEqual(spanOf(single, '1Ia'));
    expect(mayMeasurePoint(lifted, '1E', 0)).toBe(true);
    expect(mayMeasurePoint(lifted, '1E', 640)).toBe(false);
    expect(mayMeasurePoint(single, '1E', 640)).toBe(true);
  });
});

describe('a maker’s own table', () => {
  const [first, second] = planStops(inlineSix, 'fewest').stops;
  const tabled: Pattern = {
    ...inlineSix,
    makersStops: [
      { angle: 0, points: [...first!.points, second!.points[0]!] },
      { angle: 360, points: second!.points.slice(1, -1) },
    ],
  };

  it('governs where there is one', () => {
    expect(firstSchool(inlineSix)).toBe('fewest');
    expect(firstSchool(tabled)).toBe('maker');
    expect(planStops(tabled, 'maker').stops.map(({ angle, points }) => ({ angle, points }))).toEqual(
      tabled.makersStops,
    );
    expect(planStops(tabled, 'maker').unreachable).toEqual([second!.points.at(-1)]);
    // what it has measured at a place may be measured there, and no more than that
    expect(mayMeasurePoint(inlineSix, second!.points[0]!, 0)).toBe(false);
    expect(mayMeasurePoint(tabled, second!.points[0]!, 0)).toBe(true);
    expect(mayMeasurePoint(tabled, second!.points[1]!, 0)).toBe(
      mayMeasurePoint(inlineSix, second!.points[1]!, 0),
    );
  });

  it('is held against the geometry: what it has open, and what it has not', () => {
    expect(tableDifferences(inlineSix)).toEqual({ differences: [], missing: [] });
    expect(tableDifferences(tabled)).toEqual({
      differences: [{ angle: 0, open: [second!.points[0]] }],
      missing: [second!.points.at(-1)],
    });
    const right = {
      ...inlineSix,
      makersStops: planStops(inlineSix, 'each-firing').stops.map(({ angle, points }) => ({ angle, points })),
    };
    expect(tableDifferences(right)).toEqual({ differences: [], missing: [] });
    expect(lashPoints(right).length).toBe(right.makersStops.flatMap(({ points }) => points).length);
  });

  it('can be chosen where there is one, and not where there is none', () => {
    expect(schoolsFor(inlineSix).map(({ key }) => key)).not.toContain('maker');
    expect(schoolsFor(tabled)[0]!.key).toBe('maker');
  });
});

describe('the wheel with what matters alone', () => {
  it('has the tracks of those points, in the middle of their band and no fatter than a few', () => {
    const all = layOutWheel(inlineSix);
    const few = layOutWheel(inlineSix, new Set(['1I', '6E']));
    expect(few.map(({ keys }) => keys)).toEqual([['1I'], ['6E']]);
    expect(few.every(({ share }) => share === 0.2)).toBe(true);
    expect(few[0]!.place + few[1]!.place).toBeCloseTo(1);
    expect(layOutWheel(inlineSix, new Set(lashPoints(inlineSix).map(({ key }) => key)))).toEqual(all);
  });
});

describe('an engine that is never turned back', () => {
  const belt: Pattern = { ...inlineFour, turnsBack: false, camDrive: 'belt' };

  it('is turned on for two turns past a mark, and no caution sends it back', () => {
    expect(gonePastInWords(inlineFour)).toMatch(/^Turn back/);
    expect(gonePastInWords(belt)).toMatch(/never turned back.*two full turns/);
    for (const stage of ['as-found', 'prove'] as const) {
      expect(cautionsAt(stage, inlineFour).join()).toContain('go back');
      expect(cautionsAt(stage, belt).join()).not.toContain('go back');
      expect(cautionsAt(stage, belt).join()).toContain('never');
    }
  });

  it.each([
    ['chain', /chain up and taut/],
    ['belt', /mark its belt/],
    ['gears', /meshing teeth/],
    ['unsaid', /or mark what else drives it/],
  ] as const)('has the caution of what drives its cams: %s', (camDrive, caution) => {
    const said = cautionsAt('set', { ...inlineFour, camDrive }).filter((text) =>
      text.startsWith('A cam comes'),
    );
    expect(said).toHaveLength(1);
    expect(said[0]).toMatch(caution);
  });
});
