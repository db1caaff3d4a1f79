import type { Day } from '@zero-lash/core/recheck';
import type { Knex } from 'knex';

/**
 * The day of the calendar at a moment, in the shop's zone.
 *
 * @example dayIn('UTC', new Date('2030-01-01T23:59:00Z')) // '2030-01-01'
 */
export function dayIn(zone: string, moment: Date = new Date()): Day {
  let format = formats.get(zone);
  if (!format) {
    format = new Intl.DateTimeFormat('sv-SE', { timeZone: zone });
    formats.set(zone, format);
  }
  return format.format(moment);
}

/** Making a formatter costs a hundred times what using it does. */
const formats = new Map<string, Intl.DateTimeFormat>();

/** Today in the shop. */
export async function shopDay(db: Knex): Promise<Day> {
  const shop = await db('shop').first('zone');
  return dayIn(shop?.zone ?? 'UTC');
}
