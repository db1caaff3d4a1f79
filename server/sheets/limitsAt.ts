import type { SheetRevision } from '@zero-lash/contract/sheets';
import { limitsFromMm, limitsHeld, type HeldAgainst, type Limits } from '@zero-lash/core/measuring';
import { lashPoints, type LashPoint } from '@zero-lash/core/sheets';
import type { EffectiveSheet } from './effectiveSheet.ts';
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
 * The limits that a build goes by at one lash point, in tenths of a micrometre: what is left alone there as found, or what is set to;
 * null where its sheet has none yet.
 *
 * @throws Refusal `unknown_point` where it has no such point
 */
export function limitsAt(
  sheet: Pick<EffectiveSheet, 'pattern' | 'limits'>,
  point: string,
  against: HeldAgainst,
): Limits | null {
  const { role } = pointAt(sheet, point);
  const row = sheet.limits.find((limits) => limits.role === role);
  return row ? limitsFromMm(limitsHeld(row, against)) : null;
}
