import { describe, expect, it } from 'vitest';
import { lookFirst } from '../measuring/index.ts';
import { lookedAtFor, type Pattern } from '../sheets/index.ts';
import { SCREWS, shims } from './keptBuild.ts';

const limits = { min: 2000, max: 2500, allowOver: 0 };
const gap = (lo: number, hi: number | null, floor = true) => ({ lo, hi, floor });

describe('a point that is looked at before it is set', () => {
  it('is out by more than a tenth of a millimetre, and by more than its band is wide', () => {
    expect(lookFirst(gap(900, 1000), 'tight', limits, null)).toBeNull();
    expect(lookFirst(gap(800, 990), 'tight', limits, null)).toBe('far-out');
    expect(lookFirst(gap(3600, 3700), 'loose', limits, null)).toBe('far-out');
    // a wide band moves further before anybody wonders
    expect(lookFirst(gap(3600, 3700), 'loose', { ...limits, min: 1000 }, null)).toBeNull();
    // what no blade went into is as far out as its thinnest blade says, and no further
    expect(lookFirst(gap(0, 1500, false), 'tight', limits, null)).toBeNull();
    // what is open above lies nobody knows how far out: its nearer end is what counts
    expect(lookFirst(gap(3600, null), 'loose', limits, null)).toBe('far-out');
    expect(lookFirst(gap(100, 200), 'in-spec', { ...limits, min: 0 }, null)).toBeNull();
    expect(lookFirst(gap(100, 3000), 'undecided', limits, null)).toBeNull();
  });

  it('or moved for certain by more than its band is wide since it was last known', () => {
    expect(lookFirst(gap(1700, 1800), 'tight', limits, { lo: 0.23, hi: 0.24 })).toBeNull();
    expect(lookFirst(gap(1700, 1799), 'tight', limits, { lo: 0.23, hi: 0.24 })).toBe('moving-fast');
    expect(lookFirst(gap(2701, 2800), 'loose', limits, { lo: 0.21, hi: 0.22 })).toBe('moving-fast');
    expect(lookFirst(gap(2701, 2800), 'loose', limits, { lo: 0.21, hi: null })).toBeNull();
  });

  it('says what of its own train: no pushrod where there is none', () => {
    expect(lookedAtFor(SCREWS, 'intake', 'tight')).toEqual(['leak-down of its cylinder']);
    expect(lookedAtFor(shims('on-bucket'), 'intake', 'loose')).toEqual(['lobe lift', 'shim and its seat']);
    const pushed: Pattern = {
      ...SCREWS,
      means: { kind: 'screw', end: 'pushrod', pitch: 1, rockerRatio: 1.5, locking: 'lock-nut', torqueNm: 20 },
    };
    expect(lookedAtFor(pushed, 'exhaust', 'loose')).toEqual([
      'lobe lift',
      'pushrod',
      'rocker',
      'adjuster nut',
    ]);
  });
});
