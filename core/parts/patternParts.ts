import type { ExpectedPart, LedgerLine } from './ledger.ts';

/** What the shop knows of one thing that is counted on a pattern: how many there are and where, or that there is none. */
export type PatternPart = ExpectedPart & Pick<LedgerLine, 'dropped'>;

/** The note of a line that stays on the engine this once, and says nothing of others like it. */
export const STAYS_ON = 'stays on for this job';

/**
 * Puts what was kept of a pattern over what its sheet makes expect: later words over earlier ones, line by line.
 *
 * @param kept oldest first
 * @example withKept([{ key: 'cover', group: 'cover', name: 'Cover', place: '', expected: 1 }], [])[0].expected // 1
 */
export function withKept(
  expected: readonly ExpectedPart[],
  kept: readonly PatternPart[],
): readonly ExpectedPart[] {
  const last = new Map(kept.map((part) => [part.key, part]));
  const known = new Set(expected.map(({ key }) => key));
  const lines = [
    ...expected.map((part) => last.get(part.key) ?? { ...part, dropped: false }),
    ...[...last.values()].filter(({ key }) => !known.has(key)),
  ];
  return lines.flatMap(({ dropped, ...part }) => (dropped ? [] : [part]));
}

/**
 * Lists what a count at one engine says otherwise than was expected of its pattern: another number of them, another place, none, or something
 * nobody listed. What stays on for this job, what has a word of its own beside it, and what was not counted, says nothing.
 *
 * @param counted the lines of the count as they stand, what was taken off the list among them
 * @example correctionsOf([], []) // []
 */
export function correctionsOf(
  expected: readonly ExpectedPart[],
  counted: readonly LedgerLine[],
): readonly PatternPart[] {
  const listed = new Map(expected.map((part) => [part.key, part]));
  return counted.flatMap(
    ({ key, group, name, place, expected: count, out, note, dropped }): PatternPart[] => {
      const before = listed.get(key);
      // a word beside a line is of this engine: that it stays on, or that one was missing when it came
      if (note !== '') return [];
      if (dropped) return before ? [{ ...before, dropped: true }] : [];
      const there = { key, group, name, place, expected: group === 'wanted' ? count : (out ?? count) };
      const same = before && before.expected === there.expected && before.place === place;
      return same || there.expected === 0 ? [] : [{ ...there, dropped: false }];
    },
  );
}

/**
 * Says a correction in a few words, beside what was listed.
 *
 * @example correctionInWords({ key: 'clip', group: 'cover', name: 'Clip', place: 'rear', expected: 4, dropped: false }) // 'Clip rear 4'
 */
export const correctionInWords = ({ name, place, expected, dropped }: PatternPart): string =>
  `${[name, place].filter(Boolean).join(' ')} ${dropped ? 'none' : expected}`;
