let isDown = false;
if (typeof addEventListener === 'function') {
  addEventListener('pointerdown', () => (isDown = true), true);
  for (const end of ['pointerup', 'pointercancel']) addEventListener(end, () => (isDown = false), true);
}

/**
 * Does something once no finger is down: what moves the page is never done under one, or its tap is lost on what has moved away.
 *
 * @example onBlur={() => afterTap(ask)}
 */
export function afterTap(run: () => void): void {
  if (!isDown) return run();
  const end = () => {
    removeEventListener('pointerup', end, true);
    removeEventListener('pointercancel', end, true);
    // the tap itself comes after it
    setTimeout(run);
  };
  addEventListener('pointerup', end, true);
  addEventListener('pointercancel', end, true);
}
