import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Means } from '../sheets/index.ts';
import { adviseSetting, pieceDoubt, sizesOf } from '../setting/index.ts';

const SIZES = { from: 2.2, to: 3, step: 0.05 };
const MADE = sizesOf(SIZES);

describe('a piece that is written down', () => {
  it('is asked about where no such one is made, with the same digits in the range as what was meant', () => {
    expect(pieceDoubt(245_000, SIZES, null)).toEqual({ code: 'not-made', meant: 24_500 });
    expect(pieceDoubt(2450, SIZES, null)).toEqual({ code: 'not-made', meant: 24_500 });
    expect(pieceDoubt(18_000, SIZES, null)).toEqual({ code: 'not-made', meant: null });
    expect(pieceDoubt(30_200, SIZES, null)).toEqual({ code: 'not-made', meant: null });
  });

  it('is asked about between two sizes, but not for what a micrometer may differ', () => {
    expect(pieceDoubt(24_300, SIZES, null)).toEqual({ code: 'not-on-step', meant: 24_500 });
    expect(pieceDoubt(24_580, SIZES, null)).toBeNull();
    expect(pieceDoubt(21_930, SIZES, null)).toBeNull();
  });

  it('is asked about where it moves the gap the wrong way', () => {
    const tight = { installed: 24_500, verdict: 'tight' as const };
    expect(pieceDoubt(25_000, SIZES, tight)?.code).toBe('wrong-way');
    expect(pieceDoubt(24_000, SIZES, tight)).toBeNull();
    expect(pieceDoubt(24_500, SIZES, tight)).toBeNull();
    const loose = { installed: 24_500, verdict: 'loose' as const };
    expect(pieceDoubt(24_000, SIZES, loose)?.code).toBe('wrong-way');
    expect(pieceDoubt(25_000, SIZES, { ...loose, verdict: 'undecided' })).toBeNull();
  });

  it('of a size that is made is never doubted, and ten times off it always is, with that size as what was meant', () => {
    fc.assert(
      fc.property(fc.constantFrom(...MADE), fc.constantFrom(10, 0.1), (size, slip) => {
        expect(pieceDoubt(size, SIZES, null)).toBeNull();
        expect(pieceDoubt(size * slip, SIZES, null)).toEqual({ code: 'not-made', meant: size });
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
      expect(adviseSetting(means, { lo: 0, hi: 500 }, 1700, limits, 24_500).kind).toBe('no-blade-went');
      expect(adviseSetting(means, { lo: 200, hi: 500 }, 1700, limits, 24_500).kind).not.toBe('no-blade-went');
    }
  });
});
