import { addDays, comesInWords, loudFrom, nextCheckInWords } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { dayIn, shopZone } from '../clock.ts';
import { NEARNESS_SQL, nearnessOn } from '../rechecks/nearness.ts';

interface Due {
  readonly id: string;
  readonly engine: string;
  readonly place: string;
  readonly usage: number;
  readonly running: number;
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
}

/**
 * Writes down what is to be told of rechecks that come or are overdue: to the owner who has an address and wishes it, and to
 * the leads who have one. Each is told once of one due day: a recheck that is moved is told anew. Nothing is sent here.
 *
 * @returns how many were written down
 */
export async function makeReminders(db: Knex, now: Date = new Date()): Promise<number> {
  const zone = await shopZone(db);
  const today = dayIn(zone, now);
  const shop = await db('shop').first('name', 'quiet_from', 'quiet_to', 'remind_days');
  const { rows } = await db.raw(
    `select r.id, e.name as engine, e.place, e.usage, e.running, e.usage_unit as unit, r.due_usage as "dueUsage",
        r.due_date as "dueDate", r.due_cycles as "dueCycles", r.expected_day as "expectedDay", r.bench_day as "benchDay",
        ${NEARNESS_SQL} = 0 as overdue, v.condition,
        case when o.tells = 'mail' and o.email <> '' then o.email end as "ownerMail"
       from rechecks r join engines e on e.id = r.engine_id join builds b on b.id = r.build_id
         join sheet_revisions v on v.id = b.revision_id left join owners o on o.id = e.owner_id
      where r.status = 'planned' and not r.held and e.put_away_at is null
        and (${NEARNESS_SQL} in (0, 1) or r.expected_day <= :from)
        and coalesce(r.after_outcome, 'held') = 'held'`,
    { ...nearnessOn(today), from: addDays(today, shop.remind_days) },
  );
  const leads = (await db('people')
    .where({ role: 'lead', active: true })
    .whereNot({ email: '' })
    .pluck('email')) as string[];
  const quiet = { from: String(shop.quiet_from).slice(0, 5), to: String(shop.quiet_to).slice(0, 5) };
  const notBefore = new Date(loudFrom(now.getTime(), zone, quiet));
  const made = (rows as Due[]).flatMap((due) => {
    const letter = {
      ...wordsOf(due, shop.name),
      about: due.dueDate ?? String(due.dueUsage ?? due.dueCycles),
    };
    return [
      ...(due.ownerMail ? [{ address: due.ownerMail, recipient: 'owner' }] : []),
      ...leads.map((address) => ({ address, recipient: 'lead' })),
    ].map((to) => ({
      ...{ recheck_id: due.id, stage: due.overdue ? 'overdue' : 'coming', not_before: notBefore },
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

function wordsOf(due: Due, shop: string): { subject: string; body: string } {
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
      due.benchDay
        ? `It is planned on our bench for ${due.benchDay}.`
        : due.expectedDay && !due.overdue
          ? `As it is used, that will be about ${due.expectedDay}.`
          : '',
      comesInWords(due.condition),
      shop,
    ]
      .filter(Boolean)
      .join('\n\n'),
  };
}
