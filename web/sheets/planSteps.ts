import { typed } from './typedFigures.ts';
import { recheckPlan, type RecheckPlan } from '@zero-lash/contract/recheckPlan';
import { isDayOfYear, isEmptyStep, hasMeter, type UsageUnit } from '@zero-lash/core/rechecks';
import { numberTyped } from '@zero-lash/core/length';

/** A step of a recheck plan as it is typed. */
export interface StepValues {
  readonly afterUsage: string;
  readonly afterDays: string;
  readonly afterCycles: string;
  /** days of the year, day and month: before which it is looked at, and when the season ends that begins then */
  readonly before: string;
  readonly until: string;
  /** what begins then */
  readonly season: string;
  /** the points of a short look; none for every point */
  readonly points: string;
}

/** A step of a recheck plan that says nothing yet. */
export const FRESH_STEP: StepValues = {
  ...{ afterUsage: '', afterDays: '', afterCycles: '', before: '', until: '', season: '', points: '' },
};

/** Whether nothing is typed at a step. */
export const isUntouched = (step: Partial<StepValues>): boolean =>
  Object.values(step).every((text) => text.trim() === '');

type Step = Partial<RecheckPlan[number]>;

/** Lays a plan out as it would have been typed. */
export function stepsTyped(plan: readonly Step[]): StepValues[] {
  return plan.map((step) => ({
    afterUsage: typed(step.afterUsage),
    afterDays: typed(step.afterDays),
    afterCycles: typed(step.afterCycles),
    before: dayOfYearTyped(step.before),
    until: dayOfYearTyped(step.until),
    season: step.season ?? '',
    points: (step.points ?? []).join(' '),
  }));
}

/**
 * Reads a plan as it is typed; what is wrong is said by its field, `plan.0.before`.
 *
 * @param values what was typed into an earlier form of this page may lack what came later
 * @param unit of its running: without a meter what was typed of running is not asked for, and does not count
 */
export function readSteps(
  values: readonly Partial<StepValues>[],
  unit: UsageUnit,
  errors: Record<string, string>,
): RecheckPlan {
  return values.map((step, index) => {
    const figure = (field: 'afterUsage' | 'afterDays' | 'afterCycles') =>
      optional(step[field] ?? '', `plan.${index}.${field}`, errors);
    const day = (field: 'before' | 'until') => dayOfYear(step[field] ?? '', `plan.${index}.${field}`, errors);
    return {
      ...{ afterUsage: hasMeter(unit) ? figure('afterUsage') : null, afterDays: figure('afterDays') },
      ...{ afterCycles: figure('afterCycles'), before: day('before'), until: day('until') },
      season: (step.season ?? '').trim(),
      points: (step.points ?? '')
        .toUpperCase()
        .split(/[\s,;]+/)
        .filter(Boolean),
    };
  });
}

/**
 * Reads a plan that stands by itself, beside the head it is for.
 *
 * @param keys the lash points of that head
 */
export function readPlan(
  values: readonly StepValues[],
  unit: UsageUnit,
  keys: ReadonlySet<string>,
): { readonly plan: RecheckPlan | null; readonly errors: Readonly<Record<string, string>> } {
  const errors: Record<string, string> = {};
  const steps = readSteps(values, unit, errors);
  steps.forEach((step, index) => {
    const strange = step.points.find((point) => !keys.has(point));
    if (strange) errors[`plan.${index}.points`] ??= `There is no point ${strange} on this head.`;
    if (isEmptyStep(step))
      errors[`plan.${index}.afterUsage`] ??= 'A recheck needs running, days, heat cycles or a season.';
  });
  const checked = recheckPlan.safeParse(steps);
  for (const { path, message } of checked.error?.issues ?? [])
    errors[`plan.${path.map(String).join('.') || '0.afterUsage'}`] ??=
      `${message[0]!.toUpperCase()}${message.slice(1)}.`;
  return { plan: checked.success && Object.keys(errors).length === 0 ? checked.data : null, errors };
}

function optional(text: string, field: string, errors: Record<string, string>): number | null {
  if (text.trim() === '') return null;
  const value = numberTyped(text);
  if (Number.isNaN(value)) errors[field] = `“${text}” is not a number.`;
  return value;
}

/** A day of the year as day and month, `1.10.`, read as `10-01`; null where nothing is typed. */
function dayOfYear(text: string, field: string, errors: Record<string, string>): string | null {
  if (text.trim() === '') return null;
  const [, day, month] = /^(\d{1,2})[./\s-]+(\d{1,2})\.?$/.exec(text.trim()) ?? [];
  const written = `${month?.padStart(2, '0')}-${day?.padStart(2, '0')}`;
  if (isDayOfYear(written)) return written;
  errors[field] = 'day and month, such as 1.10.';
  return null;
}

function dayOfYearTyped(day: string | null | undefined): string {
  const [month, date] = (day ?? '').split('-').map(Number);
  return month && date ? `${date}.${month}.` : '';
}
