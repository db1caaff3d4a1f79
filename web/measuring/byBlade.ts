import { goNoGo, nextByBlade } from '@zero-lash/core/measuring';
import { draftKey } from '../app/drafts.ts';
import type { BenchTools } from '../instruments/useBench.ts';
import type { FeltHere } from './PadsBeside.tsx';
import type { TriesByPlace } from './triesKept.ts';

/**
 * Finds the point that comes next at a stop where one blade is taken over all of them: one that waits for the blade in the hand, or for
 * the next one; then one whose blades left something open.
 *
 * @param felt the points of the stop
 * @param held mm in the hand
 * @param from the point that was felt last, and whether it is done with
 * @returns null where the stop has no other
 */
export function nextAtStopByBlade(
  felt: readonly FeltHere[],
  tries: TriesByPlace,
  { blades, maxStack }: Pick<BenchTools, 'blades' | 'maxStack'>,
  held: number | null,
  from: { readonly key: string; readonly done: boolean },
): string | null {
  const made = ({ point, round }: FeltHere) => tries[draftKey(round.id, point.key)] ?? [];
  const byBlades = felt.flatMap((each) => {
    const { key, spec } = each.point;
    const pair = spec ? goNoGo({ blades, maxStack, spec }) : null;
    const waits = each.toFeel && !(from.done && key === from.key);
    return pair && waits ? [{ key, pair, tries: made(each) }] : [];
  });
  const next = nextByBlade(byBlades, held, from.key);
  if (next) return next.key;
  return felt.find((each) => each.point.key !== from.key && made(each).length > 0)?.point.key ?? null;
}
