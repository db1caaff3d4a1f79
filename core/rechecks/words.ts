import type { DueState, RecheckOutcome } from './dueState.ts';

/** How near a recheck is, as it is said. */
export const DUE_WORDS: Readonly<Record<DueState, string>> = {
  'not-held': 'did not hold',
  overdue: 'overdue',
  due: 'due',
  coming: 'coming',
  waiting: 'held back',
};

/** What a recheck that is done found. */
export const OUTCOME_WORDS: Readonly<Record<RecheckOutcome, string>> = {
  held: 'every gap held',
  undecided: 'not every gap decided',
  out: 'a gap has left its band',
};

/** What was done about a recheck that was planned. */
export type RecheckChange =
  'moved' | 'on-hold' | 'released' | 'dropped' | 'replanned' | 'let-stand' | 'bench';

/** What was done about a recheck, as it is said of it: “its recheck was …”. */
export const CHANGE_WORDS: Readonly<Record<RecheckChange, string>> = {
  moved: 'moved',
  'on-hold': 'held back',
  released: 'let go again',
  dropped: 'dropped',
  replanned: 'planned again',
  'let-stand': 'left as it is, whatever came in late',
  bench: 'planned for the bench',
};
