import { useEffect, useState } from 'react';

let isDown = false;
const waiting = new Set<() => void>();

/** What waited for the finger is shown once the click that it made has come to where it was aimed. */
function up(): void {
  isDown = false;
  setTimeout(() => {
    const shown = [...waiting];
    waiting.clear();
    for (const show of shown) show();
  });
}

if (typeof window !== 'undefined') {
  // only what makes a click: of another button the release may never come
  window.addEventListener('pointerdown', ({ button }) => void (isDown = button === 0), true);
  window.addEventListener('pointerup', up, true);
  window.addEventListener('pointercancel', up, true);
  window.addEventListener('keydown', up, true);
}

/**
 * Gives a value, but the last one for as long as a finger or a mouse button is down. What a field says of itself changes as it is left:
 * shown at once it would move the page between the press of a button and its release, and the press would be lost.
 */
export function useStill<Value>(value: Value): Value {
  const [shown, setShown] = useState(value);
  if (shown !== value && !isDown) setShown(value);
  useEffect(() => {
    if (shown === value) return undefined;
    const show = () => setShown(value);
    waiting.add(show);
    return () => void waiting.delete(show);
  }, [shown, value]);
  return isDown ? shown : value;
}
