import { useRef } from 'react';

/** The longest a finger takes to come down a second time without meaning it; no blade is moved to the next valve in it. */
const BOUNCE_MS = 300;

/**
 * Tells a bounced tap from a meant one: the same pad again at once, when the first tap already went on to another point.
 * Taken for a try, it would say of that point what no blade has said.
 */
export function useBounce(point: string): (pad: string, at: number) => boolean {
  const last = useRef<{ readonly point: string; readonly pad: string; readonly at: number } | null>(null);
  return (pad, at) => {
    const before = last.current;
    last.current = { point, pad, at };
    return before !== null && before.pad === pad && before.point !== point && at - before.at < BOUNCE_MS;
  };
}
