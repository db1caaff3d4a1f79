import { hasMeter, isDayOfYear, isEmptyStep, type UsageUnit } from '@zero-lash/core/rechecks';
import { z } from 'zod';
import { line, remark, usage } from './values.ts';

const dayOfYear = z.string().refine(isDayOfYear, { error: 'is no day of the year' }).nullable().default(null);

/** When to look again, whichever is first, and at which points. */
export const recheckStep = z
  .object({
    afterUsage: usage.positive().nullable(),
    afterDays: z.int().min(1).max(3650).nullable(),
    afterCycles: z.int().min(1).max(10_000).nullable().default(null),
    /** a day of the year, month and day: it is looked at before that */
    before: dayOfYear,
    /** the last day of the season that begins then; none where nobody says */
    until: dayOfYear,
    /** what begins on that day, in the shop's words */
    season: remark(40).default(''),
    /** the points that a short look takes; none for every point */
    points: z.array(line(12)).max(200).default([]),
  })
  .refine((step) => !isEmptyStep(step), { error: 'a recheck needs running, days, heat cycles or a season' })
  .refine(({ before, until }) => before !== null || until === null, {
    path: ['before'],
    error: 'a season that ends has a first day',
  });

/** What is looked at when, step by step; the last one repeats. */
export const recheckPlan = z.array(recheckStep).min(1).max(12);
export type RecheckPlan = z.infer<typeof recheckPlan>;

/** What is wrong with a step that goes by running on an engine without a meter. */
export const NO_METER = 'it has no meter: by days, heat cycles or a season';

/** Steps that go by running where nothing counts it, from 0. */
export const stepsByRunning = (
  plan: readonly { readonly afterUsage: number | null }[],
  unit: UsageUnit,
): readonly number[] =>
  hasMeter(unit) ? [] : plan.flatMap(({ afterUsage }, step) => (afterUsage === null ? [] : [step]));

/** Points that a plan names and the head does not have: where they stand in the plan, from 0. */
export function strangePoints(
  plan: readonly { readonly points: readonly string[] }[],
  keys: ReadonlySet<string>,
): readonly { readonly step: number; readonly point: string }[] {
  return plan.flatMap(({ points }, step) =>
    points.filter((point) => !keys.has(point)).map((point) => ({ step, point })),
  );
}
