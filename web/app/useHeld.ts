import { useState } from 'react';

/** A value as it was when `visit` came, until another comes: what is measured at a point is not moved by being measured. */
export function useHeld(visit: string, value: boolean): boolean {
  const [held, setHeld] = useState({ visit, value });
  if (held.visit === visit) return held.value;
  setHeld({ visit, value });
  return value;
}
