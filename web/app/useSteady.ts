import { useLayoutEffect, useRef } from 'react';

/**
 * Keeps a part of the page as high as it ever was at its width: what stands below it does not come up under a finger when it
 * has less to say.
 *
 * @example const steady = useSteady<HTMLDivElement>(); // <div ref={steady}>…
 */
export function useSteady<Part extends HTMLElement>() {
  const ref = useRef<Part>(null);
  useLayoutEffect(() => {
    const part = ref.current;
    if (!part) return undefined;
    let width = 0;
    let highest = 0;
    // after the page is laid out and before it is painted: nothing is asked of it for this
    const observer = new ResizeObserver(([entry]) => {
      const { inlineSize, blockSize } = entry!.borderBoxSize[0]!;
      if (inlineSize !== width) {
        width = inlineSize;
        highest = 0;
        part.style.minHeight = '';
        // it is looked at again as high as it is by itself
        if (part.getBoundingClientRect().height < blockSize - 0.5) return;
      }
      if (blockSize <= highest) return;
      highest = blockSize;
      part.style.minHeight = `${blockSize}px`;
    });
    observer.observe(part);
    return () => observer.disconnect();
  }, []);
  return ref;
}
