import type { Verdict } from './judge.ts';

/** Why a reading proves nothing of a gap as it is now. */
export type NoProof = 'off-base' | 'withdrawn' | 'changed-since' | 'before-lock';

/** A reading as it is kept, as far as it may prove anything. Moments are UTC, as text. */
export interface ReadingState {
  readonly point: string;
  readonly verdict: Verdict;
  /** taken with its follower off the base circle, and kept all the same */
  readonly offBase: boolean;
  readonly takenAt: string;
  /** taken before the lock nut was tightened */
  readonly beforeLock?: boolean;
  readonly reading: { readonly kind: string; readonly tries?: readonly unknown[] };
}

/**
 * Whether a reading is one that takes back what stood there: no blade was tried in it.
 *
 * @example isWithdrawal({ kind: 'tries', tries: [] }) // true
 */
export const isWithdrawal = ({ kind, tries }: ReadingState['reading']): boolean =>
  kind === 'tries' && tries?.length === 0;

/**
 * Says why a reading is no proof: off the base circle the gap is too small to go by; what was taken back leaves nothing
 * known; and a reading belongs to what was in when it was taken, so after a change at its point it says nothing. Before
 * its lock nut is tightened a gap is not yet what it will be.
 *
 * @param changedAt when something was last turned or fitted at its point; null where nothing was
 * @returns null where it stands
 * @example whyNoProof({ ...reading, offBase: true }, null) // 'off-base'
 */
export function whyNoProof(reading: Omit<ReadingState, 'point'>, changedAt: string | null): NoProof | null {
  if (isWithdrawal(reading.reading)) return 'withdrawn';
  if (reading.offBase) return 'off-base';
  if (changedAt !== null && Date.parse(changedAt) > Date.parse(reading.takenAt)) return 'changed-since';
  if (reading.beforeLock) return 'before-lock';
  return null;
}
