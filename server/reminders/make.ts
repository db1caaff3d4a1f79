import {
  addDays,
  comesInWords,
  quietUntil,
  nextCheckInWords,
  recheckDayInLetter,
  type Day,
} from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { Tables } from 'knex/types/tables.js';
import { clock, dayIn, shopZone } from '../clock.ts';
import { NEARNESS_SQL, nearnessOn, RECHECK_DAY_SQL } from '../rechecks/nearness.ts';

interface Due {
  readonly id: string;
  readonly engine: string;
  readonly place: string;
  readonly usage: number;
  readonly running: number;
  readonly heatCycles: number;
  readonly unit: string;
  readonly dueUsage: number | null;
  readonly dueDate: string | null;
  readonly dueCycles: number | null;
  readonly expectedDay: string | null;
  readonly benchDay: string | null;
  readonly overdue: boolean;
  /** what the figures it is judged by hold for */
  readonly condition: 'cold' | 'hot';
  readonly ownerMail: string | null;
  /** points that the recheck before it found out, and how; empty where it held */
  readonly notHeld: boolean;
  /** not a recheck found it out: what came in after it was signed off says so */
  readonly late: boolean;
  readonly out: readonly { readonly point: string; readonly verdict: 'tight' | 'loose' }[];
}

/**
 * Whether a planned recheck `r` of an engine `e` that did not fail comes so near that its owner is told: due or past, or its day within
 * as many days as the shop reminds ahead.
 */
export const TOLD_OF_SQL = `(${NEARNESS_SQL} in (0, 1) or (${RECHECK_DAY_SQL}) <= :from)`;

/** What `TOLD_OF_SQL` is given. */
export const toldOfOn = (day: Day, remindDays: number) => ({
  ...nearnessOn(day),
  from: addDays(day, remindDays),
});

/** What a recheck found out, where it did: the next one stands in the calendar only once it is set again. */
const OUT_SQL = `(
  select coalesce(json_agg(json_build_object('point', g.point, 'verdict', g.verdict) order by g.point), '[]')
    from rounds q join readings g on g.round_id = q.id left join rechecks before on before.id = q.recheck_id
   where (q.id = r.late_round or before.build_id = r.build_id and before.sequence = r.sequence - 1)
     and r.after_outcome = 'out'
     and not g.superseded and not g.off_base and g.verdict in ('tight', 'loose'))`;

/**
 * Writes down what is to be told of rechecks that come, are overdue or found a point out: to the owner who has an address and wishes
 * it, and to the leads who have one. Each is told once of one due day: a recheck that is moved is told again. Nothing is sent here.
 *
 * @returns how many were written down
 */
export async function makeReminders(db: Knex, now: Date = clock.now()): Promise<number> {
  const zone = await shopZone(db);
  const today = dayIn(zone, now);
  const shop = (await db('shop').first('name', 'quiet_from', 'quiet_to', 'remind_days'))!;
  const { rows } = await db.raw(
    `select r.id, e.name as engine, e.place, e.usage, e.running, e.heat_cycles as "heatCycles", e.usage_unit as unit, r.due_usage as "dueUsage",
        r.due_date as "dueDate", r.due_cycles as "dueCycles", r.expected_day as "expectedDay", r.bench_day as "benchDay",
        ${NEARNESS_SQL} = 0 as overdue, v.condition, ${OUT_SQL} as out,
        coalesce(r.after_outcome, 'held') <> 'held' as "notHeld", r.late_round is not null as late,
        case when o.tells = 'mail' and o.email <> '' then o.email end as "ownerMail"
       from rechecks r join engines e on e.id = r.engine_id join builds b on b.id = r.build_id
         join sheet_revisions v on v.id = b.revision_id left join owners o on o.id = e.owner_id
      where r.status = 'planned' and not r.held and e.put_away_at is null
        and (r.after_outcome = 'out'
          or (coalesce(r.after_outcome, 'held') = 'held' and ${TOLD_OF_SQL}))`,
    toldOfOn(today, shop.remind_days),
  );
  const leads = await db('people')
    .where({ role: 'lead', active: true })
    .whereNot({ email: '' })
    .pluck('email');
  const quiet = { from: String(shop.quiet_from).slice(0, 5), to: String(shop.quiet_to).slice(0, 5) };
  const notBefore = new Date(quietUntil(now.getTime(), zone, quiet));
  // what was found out and struck out since is nothing to be told of
  const told = (rows as Due[]).filter(({ notHeld, out }) => !notHeld || out.length > 0);
  const made = told.flatMap((due) => {
    const letter = {
      ...(due.out.length > 0 ? foundOut(due, shop.name) : wordsOf(due, shop.name, today)),
      // what was found is told once, wherever the next look is moved to; what came in late once for the points it is of
      about: due.late
        ? `late ${namesOf(due.out)}`
        : due.out.length > 0
          ? 'found'
          : (due.dueDate ?? String(due.dueUsage ?? due.dueCycles)),
    };
    const stage: Tables['reminders']['stage'] =
      due.out.length > 0 ? 'not-held' : due.overdue ? 'overdue' : 'coming';
    return [
      ...(due.ownerMail ? [{ address: due.ownerMail, recipient: 'owner' as const }] : []),
      ...leads.map((address) => ({ address, recipient: 'lead' as const })),
    ].map((to) => ({
      ...{ recheck_id: due.id, stage, not_before: notBefore },
      ...letter,
      ...to,
    }));
  });
  if (made.length === 0) return 0;
  const kept = await db('reminders')
    .insert(made)
    .onConflict(['recheck_id', 'stage', 'about', 'address'])
    .ignore()
    .returning('id');
  return kept.length;
}

const namesOf = (out: Due['out']) => out.map(({ point }) => point).join(', ');

/** What is said of an engine whose recheck found a point out: tight is what burns a valve. */
function foundOut({ engine, place, out, late }: Due, shop: string): { subject: string; body: string } {
  const tight = out.filter(({ verdict }) => verdict === 'tight');
  const loose = out.filter(({ verdict }) => verdict === 'loose');
  const where = place === '' ? '' : `, ${place}`;
  return {
    subject: tight.length > 0 ? `Tight clearances: ${engine}` : `Clearances did not hold: ${engine}`,
    body: [
      `${engine}${where}: ${late ? 'a measurement that reached us only after it was signed off found' : 'its recheck found'} ${[
        tight.length > 0 && `${namesOf(tight)} tight`,
        loose.length > 0 && `${namesOf(loose)} loose`,
      ]
        .filter(Boolean)
        .join(' and ')}. It is to be set again.`,
      tight.length > 0
        ? 'A valve that has gone tight burns: please do not run it on before it is set again.'
        : 'It is better not run on for long before it is set again.',
      shop,
    ].join('\n\n'),
  };
}

function wordsOf(due: Due, shop: string, today: Day): { subject: string; body: string } {
  const when = nextCheckInWords(due, { ...due, usageUnit: due.unit }) ?? 'soon';
  const place = due.place === '' ? '' : `, ${due.place}`;
  return {
    subject: due.overdue
      ? `Clearances overdue: ${due.engine}`
      : `Clearances to be checked soon: ${due.engine}`,
    body: [
      `${due.engine}${place}: its clearances are to be measured again ${when}. Its meter was last read at ${due.usage} ${due.unit}.`,
      due.overdue
        ? 'That is past. A valve that has gone tight burns: please let us look at it before it is run on.'
        : '',
      recheckDayInLetter(due, today),
      comesInWords(due.condition),
      shop,
    ]
      .filter(Boolean)
      .join('\n\n'),
  };
}
