import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * Keeps one function for as long as a component lives, which always does what the newest render meant: what is given it
 * need not be drawn again because a function changed.
 *
 * @example const onTap = useStable((key: string) => select(key));
 */
export function useStable<Arguments extends unknown[], Result>(
  work: (...given: Arguments) => Result,
): (...given: Arguments) => Result {
  const newest = useRef(work);
  useLayoutEffect(() => {
    newest.current = work;
  });
  return useCallback((...given: Arguments) => newest.current(...given), []);
}
