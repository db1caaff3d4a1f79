import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import type { WhenHot } from '../measuring/index.ts';
import {
  resolveLimits,
  type AlsoPrinted,
  type PrintedLimits,
  type ResolvedLimits,
  type Role,
  type SingleRule,
} from '../sheets/index.ts';
import type { SetCold } from './setCold.ts';
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

/**
 * The allowances that a build goes by from its opening on: the sheet's own, by role, each with its reason there; the shop's
 * where a sheet that was published before it was asked says nothing.
 *
 * @param limits of a sheet, `allowance` in mm
 * @example allowedBy(sheet.limits, [{ role: 'intake', over: 0.02 }]) // [{ role: 'intake', over: 0.02 }]
 */
export function allowedBy(
  limits: readonly {
    readonly role: Role;
    readonly allowance?: { readonly over: number } | null | undefined;
  }[],
  shop: readonly AllowOver[],
): AllowOver[] {
  return limits.flatMap(({ role, allowance }) => {
    const over = allowance ? allowance.over : (shop.find((each) => each.role === role)?.over ?? 0);
    return over > 0 ? [{ role, over }] : [];
  });
}

/** How one build departs from its sheet, as far as its gaps go. */
export interface Departures {
  readonly aim: Aim;
  readonly own: readonly OwnAim[];
  readonly allowOver: readonly AllowOver[];
  /** the shop's band round one figure, as it was when the build was opened; null where it had none */
  readonly singleRule: SingleRule | null;
  /** an engine that is measured hot and cannot be run; null where it is measured as its sheet says */
  readonly setCold?: SetCold | null | undefined;
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

/** The limits of a role as one build is judged by them; mm. */
export type EffectiveLimits<Row extends PrintedLimits & { readonly role: Role }> = ResolvedLimits<Row> & {
  /** taken over the greatest */
  readonly allowOver: number;
  /** the build aims outside the maker's band there, and this band lies about its aim */
  readonly aimedOutside: boolean;
  /** what holds once it is hot, where the engine is set cold; null where it is measured as its sheet says */
  readonly whenHot: WhenHot | null;
};

/**
 * The limits a build is judged by: what the sheet prints, one figure with the shop's band round it, and what the shop takes over the
 * greatest clearance; where it aims outside a band on purpose, a band as wide as the sheet's, laid about that aim, as found too.
 *
 * Rule: a point set to a figure outside the maker's band is judged against that figure. Under the least clearance nothing is
 * ever allowed besides. An engine that cannot be run is set to cold figures, and is judged by the hot ones as soon as it runs.
 *
 * @example effectiveLimits(sheet.limits, { aim: 'middle', own: [], allowOver: [{ role: 'intake', over: 0.01 }], singleRule: null })
 */
export function effectiveLimits<
  Row extends PrintedLimits & { readonly role: Role; readonly also?: readonly AlsoPrinted[] | undefined },
>(
  printed: readonly Row[],
  { aim, own, allowOver, singleRule, setCold = null }: Departures,
): readonly EffectiveLimits<Row>[] {
  const limits = resolveLimits(printed, singleRule);
  const outside = aim === 'own' ? aimsOutside(limits, own) : [];
  return limits.map((row) => {
    const over = allowOver.find(({ role }) => role === row.role)?.over ?? 0;
    const cold = setCold?.figures.find(({ role }) => role === row.role);
    if (setCold && cold) {
      const { min, max, figure, asWritten, asFound } = row;
      return {
        ...row,
        ...{ min: cold.min, max: cold.max, figure: cold.figure, asWritten: cold.asWritten },
        ...{ asFound: null, allowOver: 0, aimedOutside: false },
        whenHot: { min, max, figure, asWritten, asFound, allowOver: over, foundHot: setCold.foundHot },
      };
    }
    const aimed = outside.find(({ role }) => role === row.role);
    if (!aimed) return { ...row, allowOver: over, aimedOutside: false, whenHot: null };
    const half = (tenthsFromMm(row.max) - tenthsFromMm(row.min)) / 2;
    const at = tenthsFromMm(aimed.target);
    return {
      ...row,
      min: mmFromTenths(Math.max(0, Math.ceil(at - half))),
      max: mmFromTenths(Math.floor(at + half)),
      figure: null,
      asFound: null,
      allowOver: 0,
      aimedOutside: true,
      whenHot: null,
    };
  });
}
