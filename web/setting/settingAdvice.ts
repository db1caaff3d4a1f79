import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { Means } from '@zero-lash/core/sheets';
import { tenthsFromMm } from '@zero-lash/core/length';
import type { PointToSet, SettingAdvice } from '@zero-lash/core/setting';
import { limitAt, wearSheetOf } from '@zero-lash/core/wear';
import { gapInTenths, type LimitedPoint } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';
import type { PieceWay } from './pieceWay.ts';

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
    from?: PieceWay['from'];
    to?: PieceWay['to'];
    giver?: string | null;
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

/** A point as it is to be set, for the core: everybody who says what to fit or what a piece leaves asks with this. */
export function toSet(
  { build, point, reading, target }: Pick<MeansProps, 'build' | 'point' | 'reading' | 'target'>,
  installed: number | null,
  { guard = 0, lockShift = 0 }: { readonly guard?: number; readonly lockShift?: number } = {},
): PointToSet {
  return {
    ...{ pattern: build.sheet.pattern, role: point.role, limits: point.limits, lockShift },
    measured: reading ? gapInTenths(reading) : null,
    target: tenthsFromMm(target),
    installed: installed === null ? null : tenthsFromMm(installed),
    chart: build.sheet.pieceCharts?.find(({ role }) => role === point.role),
    guard: tenthsFromMm(guard),
  };
}

/** Why nothing made brings a point in, and what is looked at first: the same on the plan and at the point. */
export function noPieceInWords(
  why: Extract<SettingAdvice, { kind: 'no-piece' }>['why'],
  wanted: string,
  tipLimit: string | null,
): string {
  const would = `It would take ${wanted}`;
  switch (why) {
    case 'under-thinnest':
      return `${would}, thinner than is made: look at the stem and the seat first${
        tipLimit === null
          ? '; no tip is ground here, the sheet allows none'
          : `; the sheet allows ${tipLimit} off the tip in all`
      }.`;
    case 'over-thickest':
      return `${would}, thicker than is made: look at the seat, the stem and the lobe first.`;
    case 'sizes-unknown':
      return `${would}. The sheet does not know which are made: take the nearest there is, and measure it.`;
    case 'between-sizes':
      return `${would}, and of the sizes made none on either side brings it into spec.`;
    case 'measure-closer':
      return `${would}; what is known of the gap is too wide to fit anything by: measure it closer.`;
  }
}

/** What the sheet allows to be ground off the tip of a point's valve in all, mm; null where it allows none. */
export function tipLimitAt(
  { sheet, wear }: Pick<BuildView, 'sheet' | 'wear'>,
  point: LimitedPoint,
): number | null {
  const role = point.role.startsWith('intake') ? ('intake' as const) : ('exhaust' as const);
  const place = { key: point.key, cylinder: point.cylinder, role };
  return limitAt(wearSheetOf(wear, sheet.wearLimits).limits, 'tip-grinding', place)?.limit ?? null;
}
