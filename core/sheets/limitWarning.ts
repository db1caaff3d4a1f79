import { impossible, isUnusual } from '../bounds/index.ts';
import { mmFromTenths, tenthsFromMm } from '../length/index.ts';

/** A question about limits that can hardly be meant; `suggestion` in mm, where one is likely. */
export interface LimitWarning {
  readonly code: 'wide-tolerance' | 'over-a-millimetre' | 'ten-times-small' | 'unlike-the-other';
  readonly text: string;
  readonly suggestion: { readonly min: number; readonly max: number } | null;
}

/** The middle below which a gap looks a decimal place too small, in mm. */
const NARROW_MM = 0.025;
/** The most two roles' middles differ, as a ratio, before one looks a decimal place out. */
const UNLIKE = 6;
/** The share of its nominal from which a tolerance looks too wide. */
const WIDE_SHARE = 0.66;

/**
 * Asks about limits that look like a slip: a tolerance nearly as wide as its nominal, a gap over a millimetre, figures
 * ten times off, or far from what the other role has. A warning never blocks: it asks.
 *
 * @param limits in mm, with nominal and tolerance where the source gives them
 * @param others the limits of the sheet's other roles, in mm
 * @example limitWarning({ min: 1.3, max: 1.8, nominal: null, tolerance: null }, 'cold', [])?.code // 'over-a-millimetre'
 * Rule: shop practice; valve clearances lie between a few hundredths and under a millimetre.
 */
export function limitWarning(
  limits: {
    readonly min: number;
    readonly max: number;
    readonly nominal: number | null;
    readonly tolerance: number | null;
  },
  condition: 'cold' | 'hot',
  others: readonly { readonly min: number; readonly max: number }[],
): LimitWarning | null {
  const { min, max, nominal, tolerance } = limits;
  const middle = (min + max) / 2;
  if (nominal !== null && tolerance !== null && tolerance >= nominal * WIDE_SHARE)
    return {
      code: 'wide-tolerance',
      text: `A tolerance of ${tolerance} mm on ${nominal} mm is very wide.`,
      suggestion: {
        min: times(nominal - tolerance / 10, 1),
        max: times(nominal + tolerance / 10, 1),
      },
    };
  if (isUnusual('limit', max) || impossible('limit', max) !== null)
    return {
      code: 'over-a-millimetre',
      text: `A ${condition} gap over 1 mm is rare.`,
      suggestion: { min: times(min, 0.1), max: times(max, 0.1) },
    };
  if (middle < NARROW_MM)
    return {
      code: 'ten-times-small',
      text: 'Gaps this small are rare: the figures look ten times too small.',
      suggestion: { min: times(min, 10), max: times(max, 10) },
    };
  const unlike = others
    .map((other) => middle / ((other.min + other.max) / 2))
    .find((ratio) => ratio > UNLIKE || ratio < 1 / UNLIKE);
  if (unlike === undefined) return null;
  const factor = unlike > 1 ? 0.1 : 10;
  return {
    code: 'unlike-the-other',
    text:
      unlike > 1
        ? 'This is over six times what the other role has.'
        : 'This is under a sixth of what the other role has.',
    suggestion: { min: times(min, factor), max: times(max, factor) },
  };
}

const times = (mm: number, factor: number) => mmFromTenths(tenthsFromMm(mm * factor));
