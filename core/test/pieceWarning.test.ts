import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pieceGain, type Means, type Pattern } from '../sheets/index.ts';
import {
  adviseSetting,
  pieceWarning,
  shimPlan,
  sizesOf,
  surelyThin,
  whatItLeaves,
} from '../setting/index.ts';
import { inlineFour } from './patterns.ts';

const SIZES = { from: 2.2, to: 3, step: 0.05 };
const MADE = sizesOf(SIZES);

describe('a piece that is written down', () => {
  it('is asked about where no such one is made, with the same digits in the range as what was meant', () => {
    expect(pieceWarning(245_000, SIZES, null)).toEqual({ code: 'not-made', meant: 24_500 });
    expect(pieceWarning(2450, SIZES, null)).toEqual({ code: 'not-made', meant: 24_500 });
    expect(pieceWarning(18_000, SIZES, null)).toEqual({ code: 'not-made', meant: null });
    expect(pieceWarning(30_200, SIZES, null)).toEqual({ code: 'not-made', meant: null });
  });

  it('is asked about between two sizes, but not for what a micrometer may differ', () => {
    expect(pieceWarning(24_300, SIZES, null)).toEqual({ code: 'not-on-step', meant: 24_500 });
    expect(pieceWarning(24_580, SIZES, null)).toBeNull();
    expect(pieceWarning(21_930, SIZES, null)).toBeNull();
  });

  it('is asked about where it moves the gap the wrong way', () => {
    const tight = { installed: 24_500, verdict: 'tight' as const };
    expect(pieceWarning(25_000, SIZES, tight)?.code).toBe('wrong-way');
    expect(pieceWarning(24_000, SIZES, tight)).toBeNull();
    expect(pieceWarning(24_500, SIZES, tight)).toBeNull();
    const loose = { installed: 24_500, verdict: 'loose' as const };
    expect(pieceWarning(24_000, SIZES, loose)?.code).toBe('wrong-way');
    expect(pieceWarning(25_000, SIZES, { ...loose, verdict: 'undecided' })).toBeNull();
  });

  it('of a size that is made is never warned of, and ten times off it always is, with that size as what was meant', () => {
    fc.assert(
      fc.property(fc.constantFrom(...MADE), fc.constantFrom(10, 0.1), (size, slip) => {
        expect(pieceWarning(size, SIZES, null)).toBeNull();
        expect(pieceWarning(size * slip, SIZES, null)).toEqual({ code: 'not-made', meant: size });
      }),
    );
  });
});

describe('a gap into which no blade went', () => {
  const limits = { min: 1300, max: 2100 };
  it('is set by nothing: how far the valve is held open nobody knows', () => {
    const screw: Means = {
      ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1, locking: 'lock-nut', torqueNm: 20 },
    };
    const bucket: Means = { kind: 'bucket', sizes: SIZES, marking: '' };
    for (const means of [screw, bucket]) {
      const at = {
        ...{
          pattern: { ...inlineFour, roleMeans: {}, means },
          role: 'intake' as const,
          target: 1700,
          limits,
        },
        installed: 24_500,
      };
      for (const measured of [
        { lo: 0, hi: 500 },
        { lo: 0, hi: 500, floor: false },
      ]) {
        expect(adviseSetting({ ...at, measured }).kind).toBe('no-blade-went');
        expect(whatItLeaves({ ...at, measured }, 24_000)).toBeNull();
      }
      for (const measured of [
        { lo: 200, hi: 500 },
        { lo: 0, hi: 500, floor: true },
      ])
        expect(adviseSetting({ ...at, measured }).kind).not.toBe('no-blade-went');
      expect(adviseSetting({ ...at, measured: { lo: 500, hi: 200 } }).kind).toBe('need-reading');
    }
  });

  it('names one piece with which a blade will surely go, that this bench can still measure', () => {
    const at = { hi: 500, installed: 30_000, gain: 1 };
    expect(surelyThin(at, MADE, 6000)).toBe(24_500);
    expect(surelyThin({ ...at, gain: 0.5 }, MADE, 6000)).toBe(22_000);
    expect(surelyThin({ ...at, installed: 22_000 }, MADE, 6000)).toBeNull();
  });
});

describe('what to fit at a point', () => {
  const finger: Pattern = {
    ...inlineFour,
    roleMeans: {},
    means: {
      ...{ kind: 'shim', seat: 'under-finger', sizes: { from: 1.8, to: 3, step: 0.025 }, diameter: 9 },
      ...{ marking: '', seatOffset: null, rockerRatio: 1.6, gapAt: 'cam' },
    },
  };
  const at = {
    ...{ pattern: finger, role: 'intake' as const, limits: { min: 1200, max: 1700 }, target: 1450 },
    ...{ measured: { lo: 800, hi: 840 }, installed: 19_250 },
  };

  it('is the plan’s own rule for one point, its leverage in it', () => {
    // by the bare difference 1.875 would seem to leave 0.13; at the cam it leaves five eighths of that
    expect(whatItLeaves(at, 18_750)).toMatchObject({ lo: 1112.5, verdict: 'tight' });
    const advice = adviseSetting(at);
    expect(advice).toMatchObject({ kind: 'fit', size: 18_250, by: 'difference', status: 'certain' });
    const { assignments } = shimPlan({
      points: [
        {
          ...{ key: '1I', lo: 0.08, hi: 0.084, installed: 1.925, min: 0.12, max: 0.17, target: 0.145 },
          gain: pieceGain(finger, 'intake'),
        },
      ],
      ...{
        stock: [],
        orderable: sizesOf({ from: 1.8, to: 3, step: 0.025 }).map((size) => ({ thickness: size / 1e4 })),
      },
      change: { rule: 'out-of-spec' },
    });
    expect(assignments[0]!.thickness).toBe(1.825);
    const valve = { ...finger, means: { ...finger.means, gapAt: 'valve' } as Means };
    expect(whatItLeaves({ ...at, pattern: valve }, 18_750)).toMatchObject({ lo: 1300 });
  });

  it('is what the maker’s chart says, before anything is worked out', () => {
    const chart = {
      role: 'intake' as const,
      installed: [1.925],
      rows: [
        { from: 0, to: 0.1, pieces: [1.8] },
        { from: 0.1, to: 0.2, pieces: ['keep' as const] },
        { from: 0.2, to: 0.3, pieces: [null] },
      ],
    };
    expect(adviseSetting({ ...at, chart })).toMatchObject({ kind: 'fit', size: 18_000, by: 'chart' });
    expect(adviseSetting({ ...at, chart, measured: { lo: 1400, hi: 1500 } })).toMatchObject({ size: 19_250 });
    expect(adviseSetting({ ...at, chart, measured: { lo: 2400, hi: 2500 } }).kind).toBe('chart-has-none');
  });

  it('is nothing where nothing made brings it in, and never the piece that leaves it tight', () => {
    const thinnest = { ...at, installed: 18_000, measured: { lo: 500, hi: 540 } };
    expect(adviseSetting(thinnest)).toMatchObject({ kind: 'no-piece', why: 'under-thinnest' });
  });
});
