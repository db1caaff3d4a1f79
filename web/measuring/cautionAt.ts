import { NOT_YET, provesFrom } from '@zero-lash/core/builds';
import type { BuildView } from '../builds/buildView.ts';
import type { RoundHere } from './pending.ts';

/** What changes a reading, said until the first of a round is taken. */
const BEFORE_THE_FIRST = 'Blade clean and dry. Tool off the adjuster. Followers turned free.';

/**
 * What to beware of before a reading is taken here, in a line that has its place: what is entered by stands where it is whatever
 * is said; what can be done about it is said in full below.
 */
export function cautionAt(
  build: BuildView,
  round: RoundHere,
  point: string,
  beforeLock: boolean,
  hollow: boolean,
): string | null {
  if (round.kind === 'proved' && provesFrom(build).get(point) === NOT_YET)
    return 'Two full turns by hand first, and tick them: what is read before them proves nothing.';
  if (beforeLock) return 'Not locked yet: this reading is the one before.';
  if (hollow) return 'A hollow is worn in here: nothing is passed by flat blades.';
  return round.readings.some(({ roundId }) => roundId === round.id) ? null : BEFORE_THE_FIRST;
}
