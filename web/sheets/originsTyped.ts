import { FIGURE_KEYS, type FigureKey, type FigureOrigins, type Origin } from '@zero-lash/core/sheets';

/** Where a figure is from as it is typed; nothing where nobody says. */
export interface OriginValues {
  readonly from: '' | Origin;
  readonly page: string;
}

type OriginsTyped = Readonly<Record<FigureKey, OriginValues>>;

const everywhere = (of: (key: FigureKey) => OriginValues): OriginsTyped =>
  Object.fromEntries(FIGURE_KEYS.map((key) => [key, of(key)])) as OriginsTyped;

/** A new sheet is typed from the source that it names, until somebody says otherwise. */
export const FROM_SOURCE = everywhere(() => ({ from: 'source', page: '' }));

/** Of a sheet from before this was asked, nobody said. */
export const UNSAID = everywhere(() => ({ from: '', page: '' }));

/** Lays out where figures are from as it would have been typed. */
export const originsTyped = (origins: FigureOrigins = {}): OriginsTyped =>
  everywhere((key) => origins[key] ?? UNSAID[key]);

/** Whether a figure is where a figure usually is: in the source, on the sheet's page. */
export const isUsualOrigin = (origin: OriginValues | undefined): boolean =>
  origin?.from === 'source' && origin.page.trim() === '';
