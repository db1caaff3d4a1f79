import { addDays, type Day } from './calendar.ts';
import { hasMeter, type UsageUnit } from './usageUnit.ts';
import { seasonAfter, type Season } from './season.ts';

/** One step of a recheck plan: look again after so much running, so many days or heat cycles, or before a season; whichever is first. */
export interface RecheckStep {
  /** in the engine's own unit of usage; null where running does not count */
  readonly afterUsage: number | null;
  /** null where the calendar does not count */
  readonly afterDays: number | null;
  /** how often it was run hot and went cold again */
  readonly afterCycles?: number | null | undefined;
  /** a day of the year, `MM-DD`, before which it is looked at: a season's first */
  readonly before?: string | null | undefined;
  /** that season's last day, `MM-DD`; null where nobody said */
  readonly until?: string | null | undefined;
}

/** When a recheck is due. */
export interface RecheckDue {
  readonly dueUsage: number | null;
  readonly dueDate: Day | null;
  /** heat cycles in all */
  readonly dueCycles: number | null;
  /** the season it comes before; null where the step names none */
  readonly season: Season | null;
}

/**
 * Says whether a step gives nothing by which a recheck would ever be due.
 *
 * @example isEmptyStep({ afterUsage: null, afterDays: null }) // true
 */
export function isEmptyStep({ afterUsage, afterDays, afterCycles, before }: RecheckStep): boolean {
  return afterUsage === null && afterDays === null && (afterCycles ?? null) === null && !before;
}

/**
 * Lists the steps of a plan as they go for an engine: without a meter nothing comes due by running, and a step that has nothing else is none.
 *
 * @example stepsOn([{ afterUsage: 250, afterDays: 365 }], 'none')[0].afterUsage // null
 */
export function stepsOn<Step extends RecheckStep>(steps: readonly Step[], unit: UsageUnit): readonly Step[] {
  if (hasMeter(unit)) return steps;
  return steps.map((step) => ({ ...step, afterUsage: null })).filter((step) => !isEmptyStep(step));
}

/** What stands in place of a season in a step that looks before the engine goes into service. */
const SERVICE = 'it goes into service, measured hot';

/**
 * Says whether a step looks at an engine that was set cold, before it goes into service.
 *
 * @example isBeforeService({ season: 'first frost' }) // false
 */
export const isBeforeService = ({ season }: { readonly season?: string | undefined }): boolean =>
  season === SERVICE;

/**
 * Plans for an engine that is measured hot and was set cold, because it could not be run: first it is measured hot, before it goes into
 * service, and its own plan follows.
 *
 * Rule: due from the day it is signed; a lead holds it back for as long as the engine stands.
 *
 * @param sequence which recheck since sign-off is planned, from 1: without a plan of its own none follows the first
 * @example planWhereSetCold([], 1).length // 1
 */
export function planWhereSetCold<Step extends RecheckStep & { readonly season?: string }>(
  plan: readonly Step[],
  sequence: number,
): readonly (Step | (RecheckStep & { readonly season: string }))[] {
  if (plan.length === 0 && sequence > 1) return [];
  return [{ afterUsage: null, afterDays: 0, season: SERVICE }, ...plan];
}

/**
 * Plans the recheck that follows a sign-off or an earlier recheck. The last step of a plan repeats for ever.
 *
 * Rule: a season is looked at before its first day; one that begins on the very day of the sign-off is next year's.
 *
 * @param plan at least one step, each with running, days, heat cycles or a season
 * @param sequence which recheck since sign-off, from 1
 * @param from the day, running figure and heat cycles it counts from
 * @param watched a point was let stand at the edge of its band: half the running, days and heat cycles, so it is looked at sooner
 * @throws RangeError when the plan is empty or the step has nothing to go by
 * @example
 * nextRecheck([{ afterUsage: 10, afterDays: 30 }], 1, { day: '2030-01-01', usage: 100 })
 * // { dueUsage: 110, dueDate: '2030-01-31', dueCycles: null, season: null }
 */
export function nextRecheck(
  plan: readonly RecheckStep[],
  sequence: number,
  from: { readonly day: Day; readonly usage: number; readonly cycles?: number },
  watched = false,
): RecheckDue {
  const step = plan[Math.min(sequence, plan.length) - 1];
  if (!step) throw new RangeError('a recheck plan needs at least one step');
  if (isEmptyStep(step)) throw new RangeError('a recheck step needs running, days, heat cycles or a season');
  const { afterUsage, afterDays, afterCycles = null } = watched ? sooner(step) : step;
  const season = seasonAfter(step, from.day);
  const days = [
    ...(afterDays === null ? [] : [addDays(from.day, afterDays)]),
    ...(season === null ? [] : [season.from]),
  ].sort();
  return {
    dueUsage: afterUsage === null ? null : Math.round((from.usage + afterUsage) * 10) / 10,
    dueDate: days[0] ?? null,
    dueCycles: afterCycles === null ? null : (from.cycles ?? 0) + afterCycles,
    season,
  };
}

/** Half of a step, a whole day or heat cycle at least; a season begins when it begins. */
function sooner({ afterUsage, afterDays, afterCycles = null }: RecheckStep): RecheckStep {
  // what is due at once stays so
  const half = (whole: number | null) => (whole ? Math.max(1, Math.floor(whole / 2)) : whole);
  return {
    afterUsage: afterUsage === null ? null : afterUsage / 2,
    afterDays: half(afterDays),
    afterCycles: half(afterCycles),
  };
}
