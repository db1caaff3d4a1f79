import type { DueState, RecheckOutcome } from './dueState.ts';

/** How near a recheck is, as it is said. */
export const DUE_WORDS: Readonly<Record<DueState, string>> = {
  'not-held': 'did not hold',
  overdue: 'overdue',
  due: 'due',
  coming: 'coming',
  waiting: 'on hold',
};

const OUTCOME_WORDS: Readonly<Record<RecheckOutcome, string>> = {
  held: 'every gap held',
  undecided: 'not every gap decided',
  out: 'a gap has left its band',
};

/**
 * Says what a recheck that is done found: one that took some points only says nothing of the others.
 *
 * @param points how many a short look took; null where it took every one
 * @example outcomeInWords('held', 4) // 'the 4 gaps looked at held'
 */
export function outcomeInWords(outcome: RecheckOutcome, points: number | null): string {
  if (outcome !== 'held' || points === null) return OUTCOME_WORDS[outcome];
  return points === 1 ? 'the one gap looked at held' : `the ${points} gaps looked at held`;
}

/** What was done about a recheck that was planned. */
export type RecheckChange =
  'moved' | 'on-hold' | 'released' | 'dropped' | 'replanned' | 'let-stand' | 'bench';

/** What was done about a recheck, as it is said of it: “its recheck was …”. */
export const CHANGE_WORDS: Readonly<Record<RecheckChange, string>> = {
  moved: 'moved',
  'on-hold': 'put on hold',
  released: 'let go again',
  dropped: 'dropped',
  replanned: 'planned again',
  'let-stand': 'left as it is, whatever came in late',
  bench: 'planned for the bench',
};
