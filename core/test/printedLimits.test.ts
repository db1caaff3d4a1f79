import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heldAgainst, judgedAgain } from '../builds/index.ts';
import { tenthsFromMm } from '../length/index.ts';
import { limitedPoints, limitsHeld } from '../measuring/index.ts';
import { effectiveLimits } from '../setting/index.ts';
import {
  bandInWords,
  parseLimits,
  printedFrom,
  resolveBand,
  resolveLimits,
  singleBand,
  singleBandComplaint,
  type AlsoPrinted,
} from '../sheets/index.ts';
import { inlineSix } from './patterns.ts';

const single = (figure: number) => ({ figure, min: null, max: null, asWritten: `${figure} mm` });
const RULE = {
  size: 0.25,
  upTo: { below: 0.01, above: 0.03 },
  over: { below: 0.03, above: 0.05 },
};

describe('one figure of a source', () => {
  it('is the maker’s, and the band round it the shop’s: 0.02 mm, or a tenth of it where that is less', () => {
    expect(resolveBand(single(0.4), null)).toEqual({ min: 0.38, max: 0.42, figure: 0.4 });
    // 5 thou: a tenth of it
    expect(resolveBand(single(0.127), null)).toEqual({ min: 0.1143, max: 0.1397, figure: 0.127 });
    expect(singleBand(0.2, null)).toEqual({ below: 0.02, above: 0.02 });
  });

  it('has the band of the shop’s rule up to its size, and another over it', () => {
    expect(resolveBand(single(0.25), RULE)).toEqual({ min: 0.24, max: 0.28, figure: 0.25 });
    expect(resolveBand(single(0.4), RULE)).toEqual({ min: 0.37, max: 0.45, figure: 0.4 });
  });

  it('is said with whose band it is, and a printed pair as it is', () => {
    const band = (min: number, max: number) => `${min.toFixed(2)}–${max.toFixed(2)}`;
    const length = (mm: number) => mm.toFixed(2);
    expect(bandInWords(resolveBand(single(0.4), RULE), band, length)).toBe('maker: 0.40; shop: 0.37–0.45');
    const pair = { min: 0.2, max: 0.3, asWritten: '0.20–0.30' };
    expect(bandInWords(resolveBand(pair, RULE), band, length)).toBe('0.20–0.30');
  });

  it('has no band where that would be wider than it, or it is nothing', () => {
    const wide = { ...RULE, upTo: { below: 0.05, above: 0.05 } };
    expect(singleBandComplaint(0.04, wide)).toMatch(/wider than the figure/);
    expect(resolveBand(single(0.04), wide).min).toBe(0);
    expect(singleBandComplaint(0, null)).toMatch(/one figure of nothing/);
    expect(singleBandComplaint(0.0004, null)).toMatch(/so small/);
    expect(singleBandComplaint(0.3, RULE)).toBeNull();
  });

  it('always lies in its band, which is never under nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 20_000 }), fc.boolean(), (tenths, ruled) => {
        const { min, max, figure } = resolveBand(single(tenths / 10_000), ruled ? RULE : null);
        expect(tenthsFromMm(min)).toBeGreaterThanOrEqual(0);
        expect(min).toBeLessThan(figure!);
        expect(max).toBeGreaterThan(figure!);
      }),
    );
  });
});

describe('limits as they are kept', () => {
  it.each([
    ['0.40', '0.40 mm'],
    ['0.20–0.30', '0.20–0.30 mm'],
    ['12 thou', '12 thou'],
    ['12 thou (0.30 mm)', '12 thou (0.30 mm)'],
    ['0.30 (12 thou)', '0.30 mm (12 thou)'],
    ['3 to 5', '3 to 5 mm'],
    ['0.25 ± 0.05 [10 ± 2 thou]', '0.25 ± 0.05 mm [10 ± 2 thou]'],
  ])('%s says its unit: %s', (typed, kept) => {
    const read = printedFrom(typed, 'mm');
    expect(read).toMatchObject({ asWritten: kept });
    // and is understood as the same, whatever bare figures are in
    const again = parseLimits(kept, 'thou');
    const first = parseLimits(typed, 'mm');
    expect({ ...again, doubt: null }).toEqual({ ...first, doubt: null });
  });
});

const also = (kind: AlsoPrinted['kind'], min: number, max: number): AlsoPrinted => ({
  ...{ kind, min, max, figure: null, asWritten: `${min}–${max} mm` },
});
const TWO = [
  {
    ...{ role: 'intake' as const, min: 0.2, max: 0.25, asWritten: '0.20–0.25 mm' },
    also: [also('other-condition', 0.1, 0.15), also('leave', 0.15, 0.3)],
  },
  { role: 'exhaust' as const, min: 0.3, max: 0.35, asWritten: '', also: [also('after-run-in', 0.28, 0.36)] },
  { role: 'brake' as const, min: 0.7, max: 0.8, asWritten: '', also: [] },
];
const plain = { aim: 'middle' as const, own: [], allowOver: [], singleRule: null };

describe('two pairs of a maker', () => {
  it('are what is left alone as found, and what is set to; what is given hot judges nothing that is measured cold', () => {
    const [intake, exhaust, brake] = resolveLimits(TWO, null);
    expect(intake!.asFound).toMatchObject({ kind: 'leave', min: 0.15, max: 0.3 });
    expect(exhaust!.asFound).toMatchObject({ kind: 'after-run-in', min: 0.28, max: 0.36 });
    expect(brake!.asFound).toBeNull();
    expect([intake!.min, intake!.max]).toEqual([0.2, 0.25]);
  });

  it('judge as found and at a recheck by the first, what is set by the second, and at proving by whether it was touched', () => {
    const at = '2030-05-01T08:00:00.000Z';
    const settings = [
      { point: '1I', kind: 'turned' as const, at },
      { point: '2I', kind: 'left' as const, at },
    ];
    expect(heldAgainst('as-found', '1I', settings)).toBe('found');
    expect(heldAgainst('recheck', '1I', settings)).toBe('in-service');
    expect(heldAgainst('as-set', '2I', settings)).toBe('set');
    expect(heldAgainst('proved', '1I', settings)).toBe('set');
    expect(heldAgainst('proved', '2I', settings)).toBe('left');
    expect(heldAgainst('proved', '3I', settings)).toBe('left');

    const reading = (point: string) => ({
      ...{ point, reading: { kind: 'value', value: 0.28, uncertainty: 0.001 }, narrowBlade: false },
      ...{ lo: 0.279, hi: 0.281, floor: true, verdict: 'loose' as const, onLimit: false },
      limits: { min: 0.2, max: 0.25, allowOver: 0 },
    });
    const rounds = (['as-found', 'as-set', 'proved'] as const).map((kind) => ({
      kind,
      readings: [reading('1I'), reading('2I')],
    }));
    const limits = effectiveLimits(TWO, plain);
    const verdicts = judgedAgain(rounds, inlineSix, { limits, hollow: new Set(), settings }).map((round) =>
      round.readings.map(({ verdict }) => verdict),
    );
    expect(verdicts).toEqual([
      ['in-spec', 'in-spec'],
      ['loose', 'loose'],
      ['loose', 'in-spec'],
    ]);
  });

  it('are the maker’s own: what the shop takes over the greatest is not taken over what may be left alone', () => {
    const allowOver = [
      { role: 'intake' as const, over: 0.02 },
      { role: 'exhaust' as const, over: 0.02 },
    ];
    const [intake, exhaust] = effectiveLimits(TWO, { ...plain, allowOver });
    expect(limitsHeld(intake!, 'found')).toMatchObject({ min: 0.15, max: 0.3, allowOver: 0 });
    expect(limitsHeld(intake!, 'set')).toMatchObject({ min: 0.2, max: 0.25, allowOver: 0.02 });
    expect(limitsHeld(exhaust!, 'found')).toMatchObject({ max: 0.36, allowOver: 0.02 });
  });

  it('give way to an aim outside the band, as found too', () => {
    const [intake] = effectiveLimits(TWO, { ...plain, aim: 'own', own: [{ role: 'intake', target: 0 }] });
    expect(intake).toMatchObject({ asFound: null, figure: null, aimedOutside: true });
  });

  it('are each listed of a point', () => {
    const sheet = { pattern: inlineSix, limits: effectiveLimits(TWO, plain) };
    expect(limitedPoints(sheet, 'found')[0]).toMatchObject({ min: 0.15, max: 0.3, asWritten: '0.15–0.3 mm' });
    expect(limitedPoints(sheet)[0]).toMatchObject({ min: 0.2, max: 0.25, asWritten: '0.20–0.25 mm' });
    expect(limitedPoints(sheet, 'found')).toBe(limitedPoints(sheet, 'found'));
  });
});
