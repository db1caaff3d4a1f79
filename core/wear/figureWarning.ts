import type { Pattern } from '../sheets/index.ts';
import { isImpossible, type Characteristic, type HeldFigure, type WearField } from './characteristics.ts';
import { LIMIT_KINDS, type GivenLimit } from './limitKinds.ts';
import { slipWarning, factorsOf, nearOf } from './typedFigures.ts';
import type { FigureLine } from './wearLines.ts';
import { figuresAt, gradedBy, limitsThere, type WearSheet } from './wearSheet.ts';
import { placesOf, type WearPlace } from './wearPlaces.ts';

/** Why a figure looks like a slip: it is far from its like, or what it comes to is far from its limits or cannot be. */
export type WearWarning = {
  readonly value: number;
  /** what was likely meant; null where nothing near fits */
  readonly suggestion: number | null;
} & (
  | { readonly against: 'like'; readonly near: number }
  | {
      readonly against: 'limits' | 'possible';
      readonly held: HeldFigure;
      readonly given: GivenLimit | undefined;
      /** the two figures of a fit would hold together the other way round */
      readonly swapped: boolean;
    }
);

/** Where something is typed: of what was found or fitted, which field of what, and where. */
export interface TypedWhere {
  readonly set: FigureLine['set'];
  readonly item: Characteristic;
  readonly field: WearField;
  readonly place: WearPlace;
}

/** So many allowances past its limit a part would be scrap; better than new by more than so many it is another one. */
const PAST = 5;
const BETTER = 1.5;
/** Past a figure that stands alone, or a band, by so much. */
const TIMES = 5;

/** Whether a figure lies where a part of the kind would not be, by the limits it is held against; nothing is said without them. */
function isFar({ figure, part }: HeldFigure, given: GivenLimit | undefined): boolean {
  if (!given) return false;
  const { form } = LIMIT_KINDS[part];
  const { nominal, limit, min, max } = given;
  if (form === 'band')
    return (
      min !== null &&
      max !== null &&
      (figure < min - TIMES * (max - min) || figure > max + TIMES * (max - min))
    );
  if (limit === null) return false;
  if (form === 'at-least') return figure < limit / TIMES || figure > limit * TIMES * 2;
  if (form === 'at-most' || nominal === null) return limit > 0 && figure > limit * TIMES;
  const used = (figure - nominal) / (limit - nominal);
  return used > 1 + PAST || used < -BETTER;
}

/**
 * Warnings figures as they are typed: each is held against its like at other places, and what they come to with the other figures of
 * the same place against its limits, before anything is graded. It asks; it never refuses.
 *
 * Rule: a clearance under nothing is a slip, but where the source gives an interference; a part is rarely five allowances past its
 * limit, or better than new.
 *
 * @param typed the figures of the field, in its own unit
 * @returns null where nothing speaks against them, or nothing is known to hold them against
 * @example figureWarning(wear, pattern, { set: 'found', item: lobeItem, field: lobeItem.fields[0], place: placesOf(pattern, lobeItem)[0] }, [36.6]) // null
 */
export function figureWarning(
  sheet: WearSheet,
  pattern: Pattern,
  { set, item, field, place }: TypedWhere,
  typed: readonly number[],
): WearWarning | null {
  const like = placesOf(pattern, item)
    .filter(({ key }) => key !== place.key)
    .flatMap(({ key }) => [...(figuresAt(sheet, item, key, set)[field.key] ?? [])]);
  const near = nearOf(like);
  for (const value of typed) {
    const warning = slipWarning(value, near, field.unit);
    if (warning) return { value, suggestion: warning.suggestion, against: 'like', near: warning.near };
  }
  const limits = limitsThere(sheet, pattern, item, place);
  const beside = figuresAt(sheet, item, place.key, set);
  const wrongWith = (figures: typeof beside) => {
    const held = gradedBy(sheet, pattern, item, place, set, figures)?.held ?? [];
    const impossible = held.find((each) => isImpossible(each, limits));
    const far = held.find((each) => isFar(each, limits[each.part]));
    const worst = impossible ?? far;
    return worst
      ? {
          against: impossible ? ('possible' as const) : ('limits' as const),
          ...{ held: worst, given: limits[worst.part] },
        }
      : null;
  };
  const wrong = wrongWith({ ...beside, [field.key]: typed });
  if (!wrong) return null;
  const [one, other] = item.fields;
  const isFit = item.fields.length === 2 && [one, other].some((each) => each?.key === field.key);
  const both = { ...beside, [field.key]: typed };
  const swapped =
    isFit &&
    [one, other].every((each) => (both[each!.key]?.length ?? 0) > 0) &&
    wrongWith({ ...both, [one!.key]: both[other!.key]!, [other!.key]: both[one!.key]! }) === null;
  const meant = swapped
    ? null
    : soundWith(typed, field, (values) => !wrongWith({ ...beside, [field.key]: values }));
  return { value: meant?.value ?? typed[0]!, suggestion: meant?.suggestion ?? null, ...wrong, swapped };
}

/**
 * Finds the slip of the point, or else of the unit, that would make the figures hold together: the likeliest one, and none where it
 * might be of either of two readings.
 */
function soundWith(
  typed: readonly number[],
  { unit }: WearField,
  holds: (values: readonly number[]) => boolean,
): { readonly value: number; readonly suggestion: number } | null {
  for (const factor of factorsOf(unit)) {
    const sound = typed
      .map((value) => ({ value, suggestion: Number((value * factor).toPrecision(12)) }))
      .filter(({ suggestion }, index) => holds(typed.with(index, suggestion)));
    if (sound.length > 0) return sound.length === 1 ? sound[0]! : null;
  }
  return null;
}
