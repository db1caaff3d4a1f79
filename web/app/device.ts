import { v4 as makeId } from 'uuid';

const PLACE = 'zero-lash-device';

/** This device's own name, made once: a gauge is taken by a device, not by a person. */
export function thisDevice(): string {
  try {
    const known = localStorage.getItem(PLACE);
    if (known) return known;
    const made = makeId();
    localStorage.setItem(PLACE, made);
    return made;
  } catch {
    return (unkept ??= makeId());
  }
}

let unkept: string | undefined;
