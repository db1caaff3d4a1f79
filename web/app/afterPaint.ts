/** The longest something waits for a frame: a page that is not shown paints none. */
const LATEST_MS = 150;

/** Does something once what was just changed is painted, so that a tap is answered before it is worked up. */
export function afterPaint(work: () => void): void {
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    work();
  };
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, LATEST_MS);
}
