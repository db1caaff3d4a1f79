import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  correctionInWords,
  correctionsOf,
  expectedParts,
  ledgerOf,
  STAYS_ON,
  withKept,
  type LedgerLine,
} from '../parts/index.ts';
import { inlineFour, vTwelve } from './patterns.ts';

const expected = expectedParts(inlineFour);
const counted = (key: string, change: Partial<LedgerLine>): LedgerLine => ({
  ...{ key, group: 'cover', name: key, place: '', expected: 1, way: 'unsaid', out: null, in: null, note: '' },
  ...{ dropped: false, ...expected.find((part) => part.key === key) },
  ...change,
});

describe('what the shop knows of the parts of a pattern', () => {
  it('is what a count said otherwise than listed: another number, another place, none, or something more', () => {
    const corrections = correctionsOf(expected, [
      counted('cover bolt, long', { out: 5, place: 'the odd one at the rear' }),
      counted('cover', { out: 1 }),
      counted('chain tensioner', { dropped: true }),
      counted('dowel', { out: 2 }),
      counted('sealing washer', { out: null }),
      counted('chain guide', { dropped: true, note: STAYS_ON }),
      counted('sealing washer', { out: 1, note: 'one was missing when it came' }),
      counted('gone again', { dropped: true, out: 1 }),
    ]);
    expect(corrections.map(correctionInWords)).toEqual([
      'Cover bolt, long the odd one at the rear 5',
      'Chain tensioner none',
      'dowel 2',
    ]);
    const next = withKept(expected, corrections);
    expect(next.find(({ key }) => key === 'cover bolt, long')).toMatchObject({ expected: 5 });
    expect(next.some(({ key }) => key === 'chain tensioner')).toBe(false);
    expect(next.at(-1)).toMatchObject({ key: 'dowel', expected: 2 });
    // a count that finds what is known by then corrects nothing
    expect(correctionsOf(next, [counted('dowel', { expected: 2, out: 2 })])).toEqual([]);
  });

  it('goes by the last word on each line', () => {
    const dowel = {
      ...({ key: 'dowel', group: 'cover', name: 'Dowel', place: '' } as const),
      dropped: false,
    };
    const kept = withKept(expected, [
      { ...dowel, expected: 2 },
      { ...dowel, expected: 4 },
      { ...expected[0]!, dropped: true },
      { ...expected[0]!, dropped: false },
    ]);
    expect(kept.filter(({ key }) => key === 'dowel')).toMatchObject([{ expected: 4 }]);
    expect(kept[0]).toEqual(expected[0]);
  });

  it('once kept asks for nothing more, whatever was counted', () => {
    const line = fc.record({
      key: fc.constantFrom(...expected.slice(0, 6).map(({ key }) => key), 'dowel', 'clip'),
      out: fc.option(fc.integer({ min: 0, max: 9 })),
      dropped: fc.boolean(),
      place: fc.constantFrom('', 'rear'),
    });
    fc.assert(
      fc.property(fc.uniqueArray(line, { selector: ({ key }) => key, maxLength: 6 }), (lines) => {
        const ledger = lines.map(({ key, ...change }) => counted(key, change));
        const next = withKept(expected, correctionsOf(expected, ledger));
        expect(correctionsOf(next, ledger)).toEqual([]);
        const keys = ledgerOf(next, new Map()).map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
      }),
    );
  });

  it('begins with bridges and closing rockers where an engine has them', () => {
    const names = (pattern: typeof inlineFour) => expectedParts(pattern).map(({ name }) => name);
    const rockers = { ...inlineFour, means: { kind: 'lash-cap', sizes: null, marking: '' } as const };
    expect(names(rockers).filter((name) => name === 'Bridge')).toHaveLength(4);
    expect(names(vTwelve)).not.toContain('Bridge');
    expect(names(vTwelve).filter((name) => name.startsWith('Closing rocker'))).toHaveLength(60);
  });
});
