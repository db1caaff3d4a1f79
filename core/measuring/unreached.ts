import type { ReadingState } from './proof.ts';

/** What stands for a figure where a point could not be reached at a recheck; why it could not is the reading's reason. */
export const UNREACHED = 'cannot be reached';

/**
 * Lists the points of a round that could not be reached in it, as somebody said: nothing of them is waited for, and nothing is known.
 *
 * @param readings the newest of each point
 * @example unreachedIn([{ point: '1I', asTyped: 'cannot be reached', reading: { kind: 'tries', tries: [] } }]) // ['1I']
 */
export const unreachedIn = (
  readings: readonly (Pick<ReadingState, 'point' | 'reading'> & { readonly asTyped: string })[],
): readonly string[] =>
  readings
    .filter(
      ({ asTyped, reading }) =>
        asTyped === UNREACHED && reading.kind === 'tries' && reading.tries?.length === 0,
    )
    .map(({ point }) => point);
