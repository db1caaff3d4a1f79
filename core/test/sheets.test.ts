import { describe, expect, it } from 'vitest';
import { limitWarning, parseLimits, meansWarnings } from '../sheets/index.ts';
import { firingAngles, firingSteps, parseFiringOrder } from '../turning/index.ts';

describe('limits as a source writes them', () => {
  it.each([
    ['0.20–0.30', 0.2, 0.3],
    ['0.2 - 0.3 mm', 0.2, 0.3],
    ['3 to 5 thou', 0.0762, 0.127],
    ['0,25 ± 0,05 mm', 0.2, 0.3],
    ['10 +/- 2 thou', 0.2032, 0.3048],
    ['0.10 +0.05/-0.02', 0.08, 0.15],
    ['.008-.012"', 0.2032, 0.3048],
    ['0.1 mm to 150 um', 0.1, 0.15],
  ])('%s is %d to %d mm', (text, min, max) => {
    expect(parseLimits(text, 'mm')).toMatchObject({ min, max });
  });

  it.each([
    ['', 'not a pair of limits'],
    ['0.3–0.2', 'the least comes first'],
    ['a to b', 'not a pair of limits'],
    ['0.15 ± 0.4', 'the least is below nothing'],
    // a unit that is said twice differently governs neither of two others
    ['0.2 mm +1 thou/-1', 'not a pair of limits'],
    ['0.20–0.30 (8–12)', 'say the unit of what stands in brackets'],
    ['0.30–0.20 (about that)', 'not a pair of limits'],
  ])('“%s” is %s', (text, error) => {
    expect(parseLimits(text, 'mm')).toEqual({ error });
  });

  it('of one figure have no band but the shop’s', () => {
    expect(parseLimits('12 thou', 'mm')).toMatchObject({
      from: 'single',
      figure: 0.3048,
      min: null,
      max: null,
    });
    expect(parseLimits('12 thou', 'mm', { below: 0.03, above: 0.05 })).toMatchObject({
      min: 0.2748,
      max: 0.3548,
    });
  });

  it('are held against what stands in brackets, and doubted where no unit was said', () => {
    expect(parseLimits('8-12 thou (0.20-0.30 mm)', 'mm')).toMatchObject({ agrees: true, doubt: null });
    expect(parseLimits('8-12 thou (0.30-0.40 mm)', 'mm')).toMatchObject({ agrees: false });
    expect(parseLimits('12 thou (0.20-0.30 mm)', 'mm')).toMatchObject({ agrees: false });
    expect(parseLimits('8-12', 'mm')).toMatchObject({ unit: 'mm', doubt: ['thou'] });
  });

  const doubt = (text: string, other = '0.2-0.3') => {
    const [read, against] = [parseLimits(text, 'mm'), parseLimits(other, 'mm')];
    if ('error' in read || 'error' in against) throw new Error(text);
    type Both = { min: number; max: number };
    return limitWarning({ ...read, ...(read as Both) }, 'cold', [against as Both]);
  };

  it('are asked about where they look like a slip, with what was likely meant', () => {
    expect(doubt('0.15 ± 0.1')).toMatchObject({
      code: 'wide-tolerance',
      suggestion: { min: 0.14, max: 0.16 },
    });
    expect(doubt('1.5-2')).toMatchObject({ code: 'over-a-millimetre', suggestion: { min: 0.15, max: 0.2 } });
    expect(doubt('0.015-0.02')).toMatchObject({
      code: 'ten-times-small',
      suggestion: { min: 0.15, max: 0.2 },
    });
    expect(doubt('0.03-0.05', '0.3-0.4')).toMatchObject({
      code: 'unlike-the-other',
      suggestion: { max: 0.5 },
    });
    expect(doubt('0.55-0.65', '0.05-0.1')).toMatchObject({
      code: 'unlike-the-other',
      suggestion: { max: 0.065 },
    });
    expect(doubt('0.25 ± 0.05')).toBeNull();
  });
});

describe('firing', () => {
  const four = ['1', '2', '3', '4'];
  it.each([
    ['1-3-4-2', { order: ['1', '3', '4', '2'] }],
    ['1 3, 4 2', { order: ['1', '3', '4', '2'] }],
    ['', { error: expect.stringMatching(/such as/) }],
    ['1-3-4', { error: 'Cylinder 2 never fires in this order.' }],
    ['1-3-3-4-2', { error: 'Cylinder 3 fires twice in this order.' }],
    ['1-3-4-5', { error: 'There is no cylinder 5.' }],
  ])('order “%s”', (text, answer) => {
    expect(parseFiringOrder(text, four)).toEqual(answer);
  });

  it.each([
    ['', 4, { angles: [0, 180, 360, 540] }],
    ['435 285', 2, { angles: [0, 435] }],
    ['435', 2, { angles: [0, 435] }],
    ['90 270 90', 4, { angles: [0, 90, 360, 450] }],
    ['400 300', 2, { error: expect.stringMatching(/add up to 700°/) }],
    ['720', 2, { error: expect.stringMatching(/past the 720°/) }],
    ['0 720', 2, { error: expect.stringMatching(/two cylinders at once/) }],
    ['1 2 3', 2, { error: expect.stringMatching(/this has 3/) }],
    ['uneven', 2, { error: expect.stringMatching(/Numbers only/) }],
  ])('steps “%s” of %d', (text, count, answer) => {
    expect(firingAngles(text, count)).toEqual(answer);
  });

  it('is written as it is read', () => {
    expect(firingSteps([0, 180, 360, 540])).toBe('');
    expect(firingSteps([0, 435])).toBe('435 285');
  });
});

describe('a means of setting', () => {
  const screw = {
    kind: 'screw',
    end: 'valve',
    pitch: 1,
    rockerRatio: 1.5,
    locking: 'lock-nut',
    torqueNm: 22,
  } as const;
  const shim = {
    kind: 'shim',
    seat: 'on-bucket',
    sizes: { from: 2, to: 3.2, step: 0.05 },
    diameter: 29,
    marking: '',
    seatOffset: null,
  } as const;

  it('is asked about where a figure is ten times off, and only there', () => {
    expect(meansWarnings(screw)).toEqual([]);
    expect(meansWarnings(shim)).toEqual([]);
    expect(meansWarnings({ ...screw, pitch: 10, torqueNm: null })).toEqual([
      { field: 'pitch', text: 'A thread pitch of 10 is unusual. Did you mean 1?' },
    ]);
    expect(
      meansWarnings({ ...shim, sizes: { from: 20, to: 32, step: 0.5 } }).map(({ field }) => field),
    ).toEqual(['from', 'to', 'step']);
  });
});
