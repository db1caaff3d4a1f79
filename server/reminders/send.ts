import type { Knex } from 'knex';
import { clock } from '../clock.ts';
import type { Mailer } from './mailer.ts';

const FIRST_WAIT_MINUTES = 5;
const LONGEST_WAIT_MINUTES = 24 * 60;
const LONGEST_COMPLAINT = 200;

/**
 * Sends what waits and may go. Each is taken by one server alone, sent, and marked in the same transaction: where that server
 * ends in between, another sends it again under the same id, and whoever receives it has it once. One that cannot be sent waits
 * longer each time, and keeps no other back. What is not wanted any more by then is never sent.
 *
 * @returns how many went
 */
export async function sendReminders(db: Knex, mailer: Mailer, now: Date = clock.now()): Promise<number> {
  let sent = 0;
  for (;;) {
    const went = await db.transaction((own) => sendOne(own, mailer, now));
    if (went === null) return sent;
    if (went) sent += 1;
  }
}

async function sendOne(db: Knex.Transaction, mailer: Mailer, now: Date): Promise<boolean | null> {
  const row = await db('reminders')
    .whereNull('sent_at')
    .where('not_before', '<=', now)
    .whereNot({ complaint: NOT_WANTED })
    // of a recheck that is held back nothing is told, until it is let go again
    .whereNotExists(
      db('rechecks as r').select(db.raw('1')).whereRaw('r.id = reminders.recheck_id and r.held'),
    )
    .orderBy('not_before')
    .forUpdate()
    .skipLocked()
    .first();
  if (!row) return null;
  if (!(await stillWanted(db, row))) {
    await db('reminders').where({ id: row.id }).update({ complaint: NOT_WANTED });
    return false;
  }
  try {
    await mailer.send({ id: row.id, to: row.address, subject: row.subject, body: row.body, at: row.made_at });
  } catch (error) {
    const minutes = Math.min(LONGEST_WAIT_MINUTES, FIRST_WAIT_MINUTES * 2 ** row.tries);
    await db('reminders')
      .where({ id: row.id })
      .update({
        ...{ tries: row.tries + 1, complaint: (error as Error).message.slice(0, LONGEST_COMPLAINT) },
        not_before: new Date(now.getTime() + minutes * 60_000),
      });
    return false;
  }
  await db('reminders').where({ id: row.id }).update({ sent_at: now, complaint: '' });
  return true;
}

/** What stands beside a reminder that came to nothing before it was sent. */
const NOT_WANTED = 'not wanted any more';

/** Whether what it tells is still so: the recheck is still planned, and its owner still wishes to be told there. */
async function stillWanted(
  db: Knex,
  row: { recheck_id: string; recipient: string; address: string },
): Promise<boolean> {
  const recheck = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .leftJoin('owners as o', 'o.id', 'e.owner_id')
    .where({ 'r.id': row.recheck_id, 'r.status': 'planned' })
    .whereNull('e.put_away_at')
    .first('o.tells', 'o.email');
  if (!recheck) return false;
  return row.recipient === 'lead' || (recheck.tells === 'mail' && recheck.email === row.address);
}
