import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { Means } from '@zero-lash/core/sheets';
import { tenthsFromMm } from '@zero-lash/core/length';
import { adviseSetting, type SettingAdvice } from '@zero-lash/core/setting';
import type { BuildView } from '../builds/buildView.ts';
import type { LimitedPoint } from '../builds/points.ts';

/** What the piece that is turned or fitted is called. */
export const PIECE_WORDS: Readonly<Record<Means['kind'], string>> = {
  screw: 'screw',
  'pivot-nut': 'nut',
  shim: 'shim',
  bucket: 'bucket',
  'lash-cap': 'lash cap',
};

/** What a form for one means of setting is given. */
export interface MeansProps {
  readonly build: BuildView;
  readonly means: Means;
  readonly point: LimitedPoint;
  readonly reading: ReadingRow | undefined;
  /** it was measured before it was last changed, and not since */
  readonly stale: boolean;
  readonly target: number;
  readonly onRecord: (setting: {
    kind: 'turned' | 'fitted';
    degrees?: number | null;
    installed?: number;
    fitted?: number;
    mark?: string;
    note?: string;
  }) => void;
}

/** What is said where there is nothing to go by. */
export const needReading = ({ stale }: Pick<MeansProps, 'stale'>) =>
  stale ? 'Changed, and not measured since: measure it again' : 'Measure the gap first';

/** What is said where no blade went: how far the valve is held open nobody knows. */
export const noBladeWent = (means: Means) =>
  'sizes' in means
    ? `No blade went: fit a thinner ${PIECE_WORDS[means.kind]} until one goes, then measure`
    : 'No blade went: back it off until one goes, then measure';

/** What the core says to do at the point. */
export function advise(
  { means, point, reading, target }: Pick<MeansProps, 'means' | 'point' | 'reading' | 'target'>,
  installed: number | null,
  lockShift = 0,
): SettingAdvice {
  const measured = reading && {
    lo: tenthsFromMm(reading.lo),
    hi: reading.hi === null ? null : tenthsFromMm(reading.hi),
  };
  const limits = { min: tenthsFromMm(point.min), max: tenthsFromMm(point.max) };
  return adviseSetting(
    means,
    measured ?? null,
    tenthsFromMm(target),
    limits,
    installed === null ? null : tenthsFromMm(installed),
    lockShift,
  );
}
