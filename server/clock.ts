import { isZone } from '@zero-lash/contract/values';
import type { Day } from '@zero-lash/core/rechecks';
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

/** The zone the shop stands in; UTC where a database has one that this machine does not know. */
export async function shopZone(db: Knex): Promise<string> {
  const shop = await db('shop').first('zone');
  return knownZone(shop?.zone);
}

/** A zone as it is written down, or UTC where there is none or this machine does not know it. */
export const knownZone = (zone: string | null | undefined): string => (zone && isZone(zone) ? zone : 'UTC');

/** Today in the shop. */
export async function shopDay(db: Knex): Promise<Day> {
  return dayIn(await shopZone(db));
}
