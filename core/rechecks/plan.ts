import { addDays, type Day } from './calendar.ts';

/** One step of a recheck plan: look again after so much running or so many days, whichever is first. */
export interface RecheckStep {
  /** in the engine's own unit of usage; null where running does not count */
  readonly afterUsage: number | null;
  /** null where the calendar does not count */
  readonly afterDays: number | null;
}

/** When a recheck is due. */
export interface RecheckDue {
  readonly dueUsage: number | null;
  readonly dueDate: Day | null;
}

/**
 * Plans the recheck that follows a sign-off or an earlier recheck. The last step of a plan repeats for ever.
 *
 * @param plan at least one step, each with running or days or both
 * @param sequence which recheck since sign-off, from 1
 * @param from the day and running figure it counts from
 * @param watched a point was let stand at the edge of its band: half the running and half the days, so it is looked at sooner
 * @throws RangeError when the plan is empty or the step has neither
 * @example
 * nextRecheck([{ afterUsage: 10, afterDays: 30 }], 1, { day: '2030-01-01', usage: 100 })
 * // { dueUsage: 110, dueDate: '2030-01-31' }
 */
export function nextRecheck(
  plan: readonly RecheckStep[],
  sequence: number,
  from: { readonly day: Day; readonly usage: number },
  watched = false,
): RecheckDue {
  const step = plan[Math.min(sequence, plan.length) - 1];
  if (!step) throw new RangeError('a recheck plan needs at least one step');
  if (step.afterUsage === null && step.afterDays === null)
    throw new RangeError('a recheck step needs running or days');
  const { afterUsage, afterDays } = watched ? sooner(step) : step;
  return {
    dueUsage: afterUsage === null ? null : Math.round((from.usage + afterUsage) * 10) / 10,
    dueDate: afterDays === null ? null : addDays(from.day, afterDays),
  };
}

/** Half of a step, a whole day at least. */
function sooner({ afterUsage, afterDays }: RecheckStep): RecheckStep {
  return {
    afterUsage: afterUsage === null ? null : afterUsage / 2,
    afterDays: afterDays === null ? null : Math.max(1, Math.floor(afterDays / 2)),
  };
}
