import type { SheetBody } from '@zero-lash/contract/sheets';
import {
  originsOf,
  rolesOf,
  type FigureKey,
  type FigureOrigins,
  type Pattern,
  type SheetFigures,
} from '@zero-lash/core/sheets';
import { type SheetValues, everyOrigin, UNSAID, type OriginsTyped, type OriginValues } from './formValues.ts';
import { isUntouched } from './planSteps.ts';

/** Lays out where figures are from as it would have been typed. */
export const originsTyped = (origins: FigureOrigins = {}): OriginsTyped =>
  everyOrigin((key) => origins[key] ?? UNSAID[key]);

/** Whether a figure is where a figure usually is: in the source, on the sheet's page. */
export const isUsualOrigin = (origin: OriginValues | undefined): boolean =>
  origin?.from === 'source' && origin.page.trim() === '';

/** What of a form says which figures there are. */
export type FiguresTyped = Pick<
  SheetValues,
  'limits' | 'tempFrom' | 'wear' | 'torques' | 'plan' | 'heatCycles'
>;

/** A form as far as its figures go: which of them there are. */
export function figuresTyped(values: FiguresTyped, pattern: Pattern): SheetFigures {
  return {
    pattern,
    limits: rolesOf(pattern).flatMap((role) => ((values.limits[role] ?? '').trim() === '' ? [] : [{ role }])),
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
