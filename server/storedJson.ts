import { setCold } from '@zero-lash/contract/builds';
import { recheckForecast } from '@zero-lash/contract/rechecks';
import { patternPartsRow } from '@zero-lash/contract/parts';
import { personRole } from '@zero-lash/contract/people';
import { role } from '@zero-lash/contract/pattern';
import { z } from 'zod';

/** Tenths of a micrometre. */
const tenths = z.int();
const points = z.array(z.string());
const allowOver = z.array(z.object({ role, over: z.number() }));
const roundFigure = z.object({ below: z.number(), above: z.number() });
const singleRule = z.object({ size: z.number(), upTo: roundFigure, over: roundFigure }).nullable();
const dayOfYear = z.string().nullable().default(null);

/**
 * What a column of JSON holds that no number of a format stands beside: its shape, and not the bounds of what may be written today. What
 * an older version took stays readable, and what it had not yet gets what it meant.
 */
const COLUMNS = {
  'builds.allow_over': allowOver,
  'builds.single_rule': singleRule,
  'builds.own_aims': z
    .object({ figures: z.array(z.object({ role, target: z.number() })), reason: z.string().default('') })
    .nullable(),
  'builds.set_cold': setCold.omit({ by: true }).nullable(),
  'engine_plans.plan': z
    .array(
      z.object({
        afterUsage: z.number().nullable(),
        afterDays: z.number().nullable(),
        afterCycles: z.number().nullable().default(null),
        before: dayOfYear,
        until: dayOfYear,
        season: z.string().default(''),
        points: points.default([]),
      }),
    )
    .nullable(),
  'instruments.measured': z.array(z.tuple([tenths, tenths])),
  'pattern_parts.lines': patternPartsRow.shape.lines,
  'people_changes.person': z.object({ name: z.string(), role: personRole, active: z.boolean() }).nullable(),
  'piece_orders.lines': z.array(z.object({ thickness: tenths, count: z.int() })),
  'piece_systems.size_prices': z.array(z.object({ thickness: tenths, price: z.number() })).nullable(),
  'rechecks.forecast': recheckForecast.nullable(),
  'rechecks.points': points.nullable(),
  'rechecks.sample': points,
  'records_taken.differences': z.array(z.object({ path: z.string(), file: z.string(), here: z.string() })),
  'rounds.turn_done': z.array(z.number()),
  'shop.allow_over': allowOver,
  'shop.single_rule': singleRule,
} as const satisfies Record<string, z.ZodType>;

/**
 * Reads what a column of JSON holds, and never unlooked at.
 *
 * @throws Error that names the column, where it holds something else
 * @example json('rechecks.points', row.points) // ['1Ia', '1Ib']
 */
export function json<Column extends keyof typeof COLUMNS>(
  column: Column,
  value: unknown,
): z.output<(typeof COLUMNS)[Column]> {
  const read = COLUMNS[column].safeParse(value);
  if (!read.success) throw new Error(`${column} cannot be read: ${read.error.message}`);
  return read.data as z.output<(typeof COLUMNS)[Column]>;
}
