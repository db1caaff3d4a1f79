import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import type { Role } from '../sheets/index.ts';
import type { Aim, OwnAim } from './target.ts';

/** Limits of one role; mm. */
interface RoleLimits {
  readonly role: Role;
  readonly min: number;
  readonly max: number;
}

/** How far over the greatest clearance a shop still takes the points of one role; mm. */
export interface AllowOver {
  readonly role: Role;
  readonly over: number;
}

/** How one build departs from its sheet, as far as its gaps go. */
export interface GoneBy {
  readonly aim: Aim;
  readonly own: readonly OwnAim[];
  readonly allowOver: readonly AllowOver[];
}

/**
 * Lists the own figures that lie outside the band of their role: zero, or unequal, settings for competition.
 *
 * @example aimsOutside(sheet.limits, [{ role: 'exhaust', target: 0 }]).length // 1
 */
export function aimsOutside(limits: readonly RoleLimits[], own: readonly OwnAim[]): readonly OwnAim[] {
  return own.filter(({ role, target }) => {
    const band = limits.find((each) => each.role === role);
    const at = tenthsFromMm(target);
    return band !== undefined && (at < tenthsFromMm(band.min) || at > tenthsFromMm(band.max));
  });
}

/**
 * The limits a build is judged by: the sheet's own, with what the shop takes over the greatest clearance; and where it aims
 * outside a band on purpose, a band as wide as the sheet's, laid about that aim.
 *
 * Rule: a point set to a figure outside the maker's band is judged against that figure. Under the least clearance nothing is
 * ever allowed besides.
 *
 * @example limitsToGoBy(sheet.limits, { aim: 'middle', own: [], allowOver: [{ role: 'intake', over: 0.01 }] })
 */
export function limitsToGoBy<Row extends RoleLimits>(
  limits: readonly Row[],
  { aim, own, allowOver }: GoneBy,
): readonly (Row & { readonly allowOver: number; readonly aimedOutside: boolean })[] {
  const outside = aim === 'own' ? aimsOutside(limits, own) : [];
  return limits.map((row) => {
    const aimed = outside.find(({ role }) => role === row.role);
    if (!aimed)
      return {
        ...row,
        allowOver: allowOver.find(({ role }) => role === row.role)?.over ?? 0,
        aimedOutside: false,
      };
    const half = (tenthsFromMm(row.max) - tenthsFromMm(row.min)) / 2;
    const at = tenthsFromMm(aimed.target);
    return {
      ...row,
      min: mmFromTenths(Math.max(0, Math.ceil(at - half))),
      max: mmFromTenths(Math.floor(at + half)),
      allowOver: 0,
      aimedOutside: true,
    };
  });
}
