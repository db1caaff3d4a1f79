/**
 * Brings something into view inside the box that it overflows sideways, and moves nothing else: a page that scrolls by itself
 * takes what a hand is about to press from under it.
 *
 * @param inside what is to be seen
 * @param box the element that scrolls sideways
 */
export function scrollAlong(inside: Element | null | undefined, box: Element | null): void {
  if (!inside || !box) return;
  const seen = box.getBoundingClientRect();
  const { left, right } = inside.getBoundingClientRect();
  if (left < seen.left) box.scrollLeft -= seen.left - left;
  else if (right > seen.right) box.scrollLeft += right - seen.right;
}
