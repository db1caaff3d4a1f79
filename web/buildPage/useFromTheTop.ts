import type { StageKey } from '@zero-lash/core/builds';
import { useEffect, useRef } from 'react';

/** A stage begins at its top, wherever the one before was read to. */
export function useFromTheTop(looking: StageKey): void {
  const first = useRef(true);
  useEffect(() => {
    if (!first.current) document.getElementById('sheet')?.scrollTo({ top: 0 });
    first.current = false;
  }, [looking]);
}
