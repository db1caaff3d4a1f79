import { describe, expect, it } from 'vitest';
import { alreadyIn, sizesOf } from '../setting/index.ts';

const sizes = sizesOf({ from: 2, to: 3, step: 0.05 });
const inAt = (point: string, thickness: number, mark = '') => ({ point, thickness, mark });

describe('a piece that is one thing', () => {
  it('is known by a thickness that none is made in, to the micrometre', () => {
    const others = [inAt('1Ea', 23_500), inAt('3Ea', 23_470)];
    expect(alreadyIn({ thickness: 23_470, mark: '' }, others, sizes, 'mm')).toBe('3Ea');
    expect(alreadyIn({ thickness: 23_475, mark: '' }, others, sizes, 'mm')).toBe('3Ea');
    expect(alreadyIn({ thickness: 23_480, mark: '' }, others, sizes, 'mm')).toBeNull();
  });

  it('is known by a mark of its own, and is another one under another mark', () => {
    const others = [inAt('1Ea', 23_500, 'k7'), inAt('3Ea', 23_470, 'M7')];
    expect(alreadyIn({ thickness: 24_000, mark: ' K7 ' }, others, sizes, 'mm')).toBe('1Ea');
    expect(alreadyIn({ thickness: 23_470, mark: 'K9' }, others, sizes, 'mm')).toBeNull();
  });

  it('is not told from others by a size that is made, nor by the size that stands on it', () => {
    const others = [inAt('1Ea', 23_500, '235'), inAt('3Ea', 23_500)];
    expect(alreadyIn({ thickness: 23_500, mark: '' }, others, sizes, 'mm')).toBeNull();
    expect(alreadyIn({ thickness: 23_500, mark: '235' }, others, sizes, 'mm')).toBeNull();
  });
});
