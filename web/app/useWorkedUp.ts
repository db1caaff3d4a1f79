import { useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import { afterPaint } from './afterPaint.ts';
import { useStable } from './useStable.ts';

/**
 * What a person does next: it meets the page as what went before left it. Not a finger that only comes down: nothing may move
 * under it before it is lifted, or its tap would meet something else.
 */
const NEXT = ['keydown', 'click'] as const;

/**
 * Has a tap answered before it is worked up: what is given follows once the answer is painted, or at once where a person
 * already does the next thing or leaves. What was tapped is never lost.
 *
 * @example const follow = useWorkedUp(); // in a handler: say(what); follow(() => keep(what))
 */
export function useWorkedUp(): (work: () => void) => void {
  const left = useRef<(() => void) | null>(null);
  const end = useStable(() => {
    const work = left.current;
    left.current = null;
    work?.();
  });
  useEffect(() => {
    const settle = () => {
      if (left.current) flushSync(end);
    };
    for (const type of NEXT) window.addEventListener(type, settle, { capture: true });
    window.addEventListener('pagehide', end);
    return () => {
      for (const type of NEXT) window.removeEventListener(type, settle, { capture: true });
      window.removeEventListener('pagehide', end);
      end();
    };
  }, [end]);
  return useStable((work: () => void) => {
    // what went before comes first, and is never forgotten over what comes now
    end();
    left.current = work;
    afterPaint(() => {
      if (left.current === work) end();
    });
  });
}
