/** Where the point worked on is written down, before the next line of the program runs: a reload finds it at once. */
const PLACE = 'zero-lash-at:';

/** The point this tab was last at in a build; null where it was at none. */
export function pointWorkedOn(buildId: string): string | null {
  try {
    return sessionStorage.getItem(PLACE + buildId);
  } catch {
    return null;
  }
}

/** Writes down which point this tab is at; null where it is at none any more. */
export function workOnPoint(buildId: string, key: string | null): void {
  try {
    if (key === null) sessionStorage.removeItem(PLACE + buildId);
    else sessionStorage.setItem(PLACE + buildId, key);
  } catch {
    // a storage that is forbidden costs the place after a reload, nothing else
  }
}
