import type { Verdict } from './judge.ts';
import type { TryResult } from './reading.ts';

/** A verdict as it is said, on the page, on paper and in a letter. */
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  tight: 'tight',
  loose: 'loose',
  'in-spec': 'in spec',
  undecided: 'undecided',
  'undecided-low': 'may be tight',
  'undecided-high': 'may be loose',
  conflict: 'contradicts itself',
};

/** What a blade did, as a person says it. */
export const TRY_WORDS: Readonly<Record<TryResult, string>> = {
  goes: 'goes',
  drags: 'drags',
  wont: 'won’t',
};
