import type { SheetBody } from '@zero-lash/contract/sheets';
import {
  FIGURE_KEYS,
  originsOf,
  type FigureKey,
  type FigureOrigins,
  type Origin,
  type Pattern,
  type SheetFigures,
} from '@zero-lash/core/sheets';
import type { SheetValues } from './formValues.ts';
import { isUntouched } from './planSteps.ts';

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

/** A form as far as its figures go: which of them there are. */
export function figuresTyped(values: SheetValues, pattern: Pattern): SheetFigures {
  return {
    pattern,
    temperature: values.tempFrom.trim() === '' ? null : {},
    wearLimits: values.wear,
    torques: values.torques,
    recheckPlan: values.plan.filter((step) => !isUntouched(step)),
    runIn: { heatCycles: values.heatCycles.trim() === '' ? 0 : 1 },
  };
}

/** Reads where the figures are from that there are; what was left at its default is assumed by us. */
export function readOrigins(values: SheetValues, pattern: Pattern): SheetBody['origins'] {
  return Object.fromEntries(
    originsOf(figuresTyped(values, pattern)).flatMap(
      ({ key }): [FigureKey, SheetBody['origins'][FigureKey]][] => {
        if (key === 'margin' && values.margin.trim() === '') return [[key, { from: 'assumed', page: '' }]];
        const { from, page } = values.origins[key];
        return from === '' ? [] : [[key, { from, page: from === 'source' ? page.trim() : '' }]];
      },
    ),
  );
}
