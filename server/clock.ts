import { isZone } from '@zero-lash/contract/values';
import type { Day } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';

/** What is from after the database's time by less than this is of a clock that goes a little ahead. */
export const AHEAD_MS = 2 * 60_000;

/** How often a running server asks the database for its time. */
export const ASK_EVERY_MS = 60_000;
const ASKS = 5;

/**
 * The database's time as it goes on in this process: asked for now and then, and counted on from there by how long this process
 * has run since, so that a server's own clock may be wrong, or be put right in the middle, and nothing is written down at a wrong
 * time. Every server of a shop has the same.
 */
class DatabaseClock {
  #asked: { readonly said: number; readonly ran: number } | null = null;

  /** Asks the database for its time, and goes by the quickest answer: it was said somewhere between the asking and that. */
  async ask(db: Knex): Promise<void> {
    let quickest = Infinity;
    for (let ask = 0; ask < ASKS; ask += 1) {
      const from = performance.now();
      const { rows } = await db.raw('select extract(epoch from clock_timestamp()) * 1000 as ms');
      const to = performance.now();
      if (to - from >= quickest) continue;
      quickest = to - from;
      this.#asked = { said: Number(rows[0].ms), ran: (from + to) / 2 };
    }
  }

  /** Now, by the database; by this machine where it was not asked yet. */
  now(): Date {
    return new Date(this.#asked ? this.#asked.said + (performance.now() - this.#asked.ran) : Date.now());
  }

  /** Whole seconds that this machine's clock goes ahead of the database's; less than nothing where it goes behind. */
  ahead(): number {
    return Math.round((Date.now() - this.now().getTime()) / 1000) || 0;
  }
}

export const clock = new DatabaseClock();

/**
 * Whether something is said to be from after now: it stands in the way of nothing that comes after it.
 *
 * @example isAhead(new Date('2199-01-01')) // true
 */
export const isAhead = (at: Date): boolean => at.getTime() > clock.now().getTime() + AHEAD_MS;

/**
 * The day of the calendar at a moment, in the shop's zone.
 *
 * @example dayIn('UTC', new Date('2030-01-01T23:59:00Z')) // '2030-01-01'
 */
export function dayIn(zone: string, moment: Date = clock.now()): Day {
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
