import { nextCheckInWords } from '@zero-lash/core/rechecks';
import { RECHECK_DAY_SQL } from '../rechecks/nearness.ts';
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { Knex } from 'knex';

/** How far ahead a calendar looks; days. */
const AHEAD = 730;

interface Entry {
  readonly id: string;
  readonly day: string;
  readonly benchDay: string | null;
  readonly engine: string;
  readonly engineId: string;
  readonly place: string;
  readonly owner: string;
  readonly sequence: number;
  readonly dueDate: string | null;
  readonly dueUsage: number | null;
  readonly dueCycles: number | null;
  readonly condition: 'cold' | 'hot';
  readonly usage: number;
  readonly running: number;
  readonly unit: string;
  readonly version: number;
  readonly madeAt: Date;
}

/**
 * Writes planned rechecks as iCalendar: a whole day each, the one it is planned on the bench or else the one it is expected on;
 * what is overdue stands on today until it is done.
 *
 * @param only one recheck; every planned one of the shop where it is left out
 * @param origin where the program is reached, for the way back to the engine
 */
export async function writeCalendar(
  db: Knex,
  { only, origin, today }: { readonly only?: string; readonly origin: string; readonly today: string },
): Promise<string | null> {
  const { rows } = (await db.raw(
    `select r.id, greatest(${RECHECK_DAY_SQL}, cast(:day as date))::text as day, r.bench_day as "benchDay",
        e.name as engine, e.id as "engineId", e.place, e.owner, r.sequence, r.due_date as "dueDate",
        r.due_usage as "dueUsage", r.due_cycles as "dueCycles", v.condition, e.usage, e.running, e.usage_unit as unit, r.version,
        (select max(at) from recheck_changes c where c.recheck_id = r.id) as "madeAt"
       from rechecks r join engines e on e.id = r.engine_id join builds b on b.id = r.build_id
         join sheet_revisions v on v.id = b.revision_id
      where r.status = 'planned' and not r.held and e.put_away_at is null
        and (${RECHECK_DAY_SQL}) is not null
        and ${only ? 'r.id = :only' : `(${RECHECK_DAY_SQL}) <= cast(:day as date) + ${AHEAD}`}
      order by day, e.name`,
    { day: today, ...(only ? { only } : {}) },
  )) as { rows: Entry[] };
  if (only && rows.length === 0) return null;
  const shop = (await db('shop').first('name'))!;
  const calendar = ical({
    name: `Rechecks, ${shop.name}`,
    prodId: { company: 'zero-lash', product: 'rechecks', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const entry of rows) {
    const { id, day, engine, place, sequence } = entry;
    calendar.createEvent({
      id: `${id}@zero-lash`,
      sequence: entry.version,
      // a whole day has no hour, in no zone
      start: new Date(`${day}T00:00:00Z`),
      end: new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000),
      allDay: true,
      timezone: 'UTC',
      summary: `${entry.benchDay ? 'On the bench' : 'Recheck'}: ${engine}`,
      description: wordsOf(entry),
      location: place,
      url: `${origin}/engines/${entry.engineId}`,
      stamp: entry.madeAt ?? new Date(`${day}T00:00:00Z`),
      categories: [{ name: `Recheck ${sequence}` }],
    });
  }
  // what only one maker's program understands is left out
  return calendar.toString().replaceAll(/^X-(?!WR-)[^\r\n]*\r?\n/gm, '');
}

function wordsOf(entry: Entry): string {
  const due = nextCheckInWords(entry, { ...entry, usageUnit: entry.unit });
  return [
    `Recheck ${entry.sequence} of ${entry.engine}${entry.owner ? `, ${entry.owner}` : ''}.`,
    due && `Due ${due}.`,
    `${entry.condition === 'cold' ? 'Cold' : 'Hot, as the sheet says,'} and unable to start. The maker’s manual governs.`,
  ]
    .filter(Boolean)
    .join('\n');
}
