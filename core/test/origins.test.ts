import { describe, expect, it } from 'vitest';
import { adjusterAt, adviseSetting, pieceWarning, roleChart, sizesOf } from '../setting/index.ts';
import {
  FIGURE_KEYS,
  originInWords,
  originsOf,
  unknownsOf,
  type Means,
  type Pattern,
  type SheetFigures,
  rolesOf,
} from '../sheets/index.ts';
import { firstSchool } from '../turning/index.ts';
import { SCREWS, shims } from './keptBuild.ts';

const sheet = (pattern: Pattern, change: Partial<SheetFigures> = {}): SheetFigures => ({
  ...{ limits: rolesOf(pattern).map((role) => ({ role })) },
  ...{ pattern, temperature: {}, wearLimits: [1], torques: [1], recheckPlan: [1] },
  ...change,
});
const keys = (lines: readonly { readonly key: string }[]) => lines.map(({ key }) => key);
const withMeans = (pattern: Pattern, means: Partial<Means>): Pattern =>
  ({ ...pattern, means: { ...pattern.means, ...means } }) as Pattern;

describe('where the figures of a sheet are from', () => {
  it('is said of those it has, and of nothing else', () => {
    expect(keys(originsOf(sheet(SCREWS)))).toEqual([
      ...['timing', 'margin', 'marks', 'pitch', 'rocker-ratio', 'lock-torque', 'limits', 'temperature'],
      ...['wear-limits', 'torques', 'plan'],
    ]);
    const under = originsOf(sheet({ ...shims('under-bucket'), marks: [] }, { temperature: null }));
    expect(keys(under)).toEqual([
      ...['timing', 'margin', 'sizes', 'diameter', 'limits', 'wear-limits', 'torques', 'plan'],
    ]);
  });

  it('is nobody’s word where it was never asked', () => {
    const origins = { limits: { from: 'source', page: '12' }, pitch: { from: 'assumed', page: '' } } as const;
    const said = new Map(
      originsOf(sheet(SCREWS, { origins })).map(({ key, origin }) => [key, originInWords(origin)]),
    );
    expect(said.get('limits')).toBe('the source, page 12');
    expect(said.get('pitch')).toBe('assumed by us');
    expect(said.get('timing')).toBe('origin unsaid');
    expect(originInWords({ from: 'shop', page: '3' })).toBe('the shop’s');
  });
});

describe('what a sheet does not know', () => {
  it('is named with what cannot be said for want of it', () => {
    expect(unknownsOf(sheet({ ...SCREWS, camsAbove: 'one' }))).toEqual([]);
    const bare = withMeans(SCREWS, { pitch: null, rockerRatio: null, torqueNm: null });
    const unknown = unknownsOf(
      sheet(
        { ...bare, timing: { ...SCREWS.timing, assumed: true } },
        { temperature: null, wearLimits: [], torques: [], recheckPlan: [] },
      ),
    );
    expect(keys(unknown)).toEqual([
      ...['timing', 'pitch', 'rocker-ratio', 'lock-torque', 'temperature', 'wear-limits', 'torques', 'plan'],
      'cams',
    ]);
    for (const { without } of unknown) expect(without.length).toBeGreaterThan(20);
    expect(FIGURE_KEYS).toEqual(expect.arrayContaining(keys(unknown).filter((key) => key !== 'cams')));
  });

  it('is not what an engine like it has not: nothing locks what holds by its own grip, and pieces have no thread', () => {
    const grips = withMeans(SCREWS, { locking: 'self-locking', torqueNm: null });
    expect(keys(unknownsOf(sheet({ ...grips, camsAbove: 'one' })))).toEqual([]);
    expect(keys(unknownsOf(sheet(withMeans(shims('on-bucket'), { sizes: null, diameter: null }))))).toEqual([
      ...['sizes', 'diameter', 'cams'],
    ]);
  });

  it('is no thread of an eccentric, which is set by the blade whatever is known of it', () => {
    const eccentric = withMeans(SCREWS, { end: 'eccentric', pitch: null });
    expect(keys(unknownsOf(sheet({ ...eccentric, camsAbove: 'one' })))).toEqual([]);
    const at = {
      ...{ pattern: eccentric, role: 'intake' as const, target: 1500, installed: null },
      ...{
        limits: { min: 1000, max: 2000, allowOver: 0 } as never,
        measured: { lo: 700, hi: 800, floor: true },
      },
    };
    expect(adviseSetting(at)).toEqual({ kind: 'by-blade', direction: 'loosen' });
    expect(adjusterAt(eccentric, 'intake')).toBeNull();
  });

  it('begins with each cylinder’s firing where nobody knows the timing', () => {
    expect(firstSchool(SCREWS)).toBe('fewest');
    expect(firstSchool({ ...SCREWS, timing: { ...SCREWS.timing, assumed: true } })).toBe('each-firing');
  });
});

describe('pieces whose sizes nobody knows', () => {
  const unknown = withMeans(shims('under-bucket'), { sizes: null });
  const limits = { min: 1000, max: 2000, allowOver: 0 } as never;

  it('are not named: what it would take is said', () => {
    const at = {
      ...{ pattern: unknown, role: 'intake' as const, limits, target: 1500 },
      ...{ measured: { lo: 700, hi: 800, floor: true }, installed: 22500 },
    };
    expect(adviseSetting(at)).toEqual({ kind: 'no-piece', why: 'sizes-unknown', wanted: 21750 });
    expect(adviseSetting({ ...at, installed: null })).toEqual({ kind: 'need-installed' });
    expect(sizesOf(null)).toEqual([]);
    expect(roleChart(unknown, 'intake', [{ role: 'intake', min: 0.1, max: 0.2 }])).toBeNull();
  });

  it('are still asked about where one moves the gap the wrong way', () => {
    const tight = { installed: 22500, verdict: 'tight' as const };
    expect(pieceWarning(23000, null, tight)).toEqual({ code: 'wrong-way', meant: null });
    expect(pieceWarning(22000, null, tight)).toBeNull();
    expect(pieceWarning(99000, null, null)).toBeNull();
  });
});
