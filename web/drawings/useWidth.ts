import { useLayoutEffect, useRef, useState } from 'react';

/** Measures the room a drawing has, in px, and keeps measuring. */
export function useWidth<Element extends HTMLElement>(initial: number) {
  const ref = useRef<Element>(null);
  const [width, setWidth] = useState(initial);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    setWidth(element.clientWidth);
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
