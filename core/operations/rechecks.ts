import { z } from 'zod';
import { fleetPrior, unlike } from '../fleet/index.ts';
import { driftForecast, recheckDue } from '../rechecks/index.ts';
import { interval, limits, operation, type Operation } from './operation.ts';

const day = z.iso.date();
const normal = z.object({ mean: z.number(), sd: z.number().nonnegative() });
const above0 = z.number().positive();

/** What is worked out once an engine runs: when to look again, where a gap is going, and what the shop's engines say. */
export const RECHECK_OPERATIONS: Readonly<Record<string, Operation>> = {
  'recheck-due': operation(
    z.object({
      from: z.object({ day, usage: z.number().nonnegative() }),
      step: z.object({
        afterUsage: above0.nullable().default(null),
        afterDays: z.int().positive().nullable().default(null),
        before: z
          .string()
          .refine((text) => /^\d\d-\d\d$/.test(text) && z.iso.date().safeParse(`2032-${text}`).success, {
            error: 'must be a day of the year, MM-DD',
          })
          .optional(),
      }),
      log: z.array(z.object({ day, usage: z.number().nonnegative() })),
      windowDays: z.int().positive().optional(),
    }),
    recheckDue,
  ),
  'drift-forecast': operation(
    z.object({
      observations: z.array(interval.and(z.object({ usage: z.number().nonnegative() }))).min(1),
      spec: limits,
      prior: z.object({ bedIn: normal, perUnit: normal, tau: above0 }),
      operatorSd: z.number().nonnegative(),
      threshold: z.number().min(0).max(1),
      horizon: z.number().nonnegative(),
      step: above0,
      at: z.array(z.number().nonnegative()),
    }),
    driftForecast,
  ),
  'fleet-prior': operation(
    z.object({ estimates: z.array(z.object({ value: z.number(), se: above0 })) }),
    fleetPrior,
  ),
  unlike: operation(
    z.object({
      points: z
        .array(z.object({ key: z.string(), perUnit: z.number(), se: z.number().nonnegative() }))
        .min(1),
      betweenSd: z.number().nonnegative(),
      alpha: z.number().gt(0).lt(1),
    }),
    unlike,
  ),
};
