import { recheckPlan } from '@zero-lash/contract/recheckPlan';
import { recordDifference } from '@zero-lash/contract/recordColumns';
import { personRole } from '@zero-lash/contract/people';
import { recheckForecast } from '@zero-lash/contract/rechecks';
import { allowOver, ownAims } from '@zero-lash/contract/setting';
import { crankAngle } from '@zero-lash/contract/turning';
import { z } from 'zod';

/** Tenths of a micrometre. */
const tenths = z.int();
const points = z.array(z.string());

/** What a column of JSON holds that no number of a format stands beside. What of it an older version wrote, its schema brings here. */
const COLUMNS = {
  'builds.allow_over': allowOver,
  'builds.own_aims': ownAims.omit({ by: true }).nullable(),
  'engine_plans.plan': recheckPlan.nullable(),
  'instruments.measured': z.array(z.tuple([tenths, tenths])),
  'people_changes.person': z.object({ name: z.string(), role: personRole, active: z.boolean() }).nullable(),
  'piece_orders.lines': z.array(z.object({ thickness: tenths, count: z.int() })),
  'piece_systems.size_prices': z.array(z.object({ thickness: tenths, price: z.number() })).nullable(),
  'rechecks.forecast': recheckForecast.nullable(),
  'rechecks.points': points.nullable(),
  'rechecks.sample': points,
  'records_taken.differences': z.array(recordDifference),
  'rounds.turn_done': z.array(crankAngle),
  'shop.allow_over': allowOver,
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
