import type { SheetRevision } from '@zero-lash/contract/sheets';
import { tenthsFromMm } from '@zero-lash/core/length';
import { lashPoints, type LashPoint } from '@zero-lash/core/sheets';
import { Refusal } from '../plugins/errors.ts';

/**
 * A lash point of a revision.
 *
 * @throws Refusal `unknown_point` where it has no such point
 */
export function pointAt({ pattern }: Pick<SheetRevision, 'pattern'>, point: string): LashPoint {
  const found = lashPoints(pattern).find(({ key }) => key === point);
  if (found) return found;
  throw new Refusal('unknown_point', {
    detail: `This engine has no lash point ${point}.`,
    fields: [{ path: 'point', message: 'is not on this engine' }],
  });
}

/**
 * The limits of one lash point of a revision, in tenths of a micrometre.
 *
 * @throws Refusal `unknown_point` where it has no such point
 */
export function limitsAt(
  sheet: Pick<SheetRevision, 'pattern' | 'limits'>,
  point: string,
): { readonly min: number; readonly max: number } {
  const { role } = pointAt(sheet, point);
  const { min, max } = sheet.limits.find((limits) => limits.role === role)!;
  return { min: tenthsFromMm(min), max: tenthsFromMm(max) };
}
