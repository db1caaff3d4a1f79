import { startTransition, useEffect, useRef, useState } from 'react';

/** The longest that what follows later is behind: while writes go out one after another there may be no quiet moment for it. */
const MOST_LATE_MS = 500;

/**
 * A value a moment later, once what is urgent is drawn; but never long, however much goes on meanwhile. (A deferred value of React
 * alone is drawn only when nothing else is to be drawn: while twenty writes were sent it stood still.)
 *
 * @example const later = useLater(work); // the point answers by `work`, what stands round it by `later`
 */
export function useLater<Value extends object>(value: Value): Value {
  const [shown, setShown] = useState(value);
  const newest = useRef(value);
  const late = shown !== value;
  useEffect(() => {
    newest.current = value;
    startTransition(() => setShown(value));
  }, [value]);
  useEffect(() => {
    if (!late) return undefined;
    const timer = setTimeout(() => setShown(newest.current), MOST_LATE_MS);
    return () => clearTimeout(timer);
  }, [late, shown]);
  return shown;
}
