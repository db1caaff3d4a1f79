import { mmFromTenths } from '../length/index.ts';
import { limitsFromMm } from '../measuring/index.ts';
import { meansFor, pieceGain, rolesOf, type Pattern, type Role } from '../sheets/index.ts';
import { chartOf } from './baselines.ts';
import { sizesOf } from './sizes.ts';
import { aimFor } from './target.ts';

/** A role's chart of which piece to fit, and what it brings the gap to. Lengths in mm. */
export type RoleChart = ReturnType<typeof chartOf> & { readonly target: number };

/**
 * Lays out the chart of which piece to fit for one role of a sheet, to the middle of its band: what is shown, printed and written
 * to a file.
 *
 * @param limits of every role, in mm
 * @returns null where the role is not there, is not set by a graded piece, or has no limits; and where nobody knows the sizes made
 * @example roleChart(shims, 'intake', limits)?.installed[1] // 2.05
 */
export function roleChart(
  pattern: Pattern,
  role: Role,
  limits: readonly {
    readonly role: Role;
    readonly min: number;
    readonly max: number;
    readonly figure?: number | null;
  }[],
): RoleChart | null {
  const spec = limits.find((each) => each.role === role);
  if (!rolesOf(pattern).includes(role) || !spec) return null;
  const means = meansFor(pattern, role);
  if (!('sizes' in means) || means.sizes === null) return null;
  const target = mmFromTenths(aimFor('middle', role, limitsFromMm(spec)));
  const chart = chartOf({
    ...{ spec, target, step: means.sizes.step },
    sizes: sizesOf(means.sizes).map(mmFromTenths),
    gain: pieceGain(pattern, role),
  });
  return { ...chart, target };
}
