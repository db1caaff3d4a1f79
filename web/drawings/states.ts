import type { PointStatus } from '@zero-lash/core/builds';
import { VERDICT_WORDS } from '@zero-lash/core/measuring';

/** What a lash point is shown as: what was read there, that nothing is in, that a short look passes it over, or why it was not measured. */
export type PointState = PointStatus | 'bare' | 'passed-over' | 'unopened' | 'unreached' | 'apart';

/** The word that stands beside every mark. */
export const STATE_WORDS: Readonly<Record<PointState, string>> = {
  ...VERDICT_WORDS,
  'not-measured': 'not measured',
  'off-base': 'off its base circle',
  'changed-since': 'set, not measured since',
  'before-lock': 'not locked yet',
  'before-turns': 'read before the two turns',
  bare: 'nothing in',
  'passed-over': 'not in this look',
  unopened: 'head not opened yet',
  unreached: 'cannot be reached',
  apart: 'came apart',
};

/** The colour token of a state; never the only sign of it. */
export const STATE_COLOURS: Readonly<Record<PointState, string>> = {
  tight: 'tight',
  loose: 'loose',
  'in-spec': 'settled',
  undecided: 'brass',
  'undecided-low': 'brass',
  'undecided-high': 'brass',
  conflict: 'tight',
  'not-measured': 'faded',
  'off-base': 'brass',
  'changed-since': 'faded',
  'before-lock': 'brass',
  'before-turns': 'brass',
  bare: 'faded',
  'passed-over': 'faded',
  unopened: 'faded',
  unreached: 'brass',
  apart: 'faded',
};

/** A colour token as an SVG paint. */
export const paint = (token: string) => `var(--zl-colors-${token})`;
