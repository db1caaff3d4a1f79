import type { Knex } from 'knex';
import { clock } from '../clock.ts';
import { MailServerAway, type Mailer } from './mailer.ts';

const FIRST_WAIT_MINUTES = 5;
const LONGEST_WAIT_MINUTES = 24 * 60;
const LONGEST_COMPLAINT = 200;
/** A letter is one server's for so long: well over what `smtpAt` gives it in all. */
const SENDING_MS = 120_000;

/**
 * Sends what waits and may go. Each is one server's alone until a moment, is sent with no transaction open, and is marked then: where
 * that server ends in between, another sends it again under the same id once the moment is past, and whoever receives it has it once.
 * One that cannot be sent waits longer each time, and keeps no other back; where the mail server itself is away nothing else is tried
 * until the next time. What is not wanted any more by then is never sent.
 *
 * @returns how many went
 */
export async function sendReminders(db: Knex, mailer: Mailer, now: Date = clock.now()): Promise<number> {
  let sent = 0;
  for (;;) {
    const letter = await takeNext(db, now);
    if (!letter) return sent;
    const outcome = await sendOne(db, mailer, letter, now);
    if (outcome === 'sent') sent += 1;
    if (outcome === 'server-away') return sent;
  }
}

interface Waiting {
  readonly id: string;
  readonly recheck_id: string;
  readonly recipient: string;
  readonly address: string;
  readonly subject: string;
  readonly body: string;
  readonly made_at: Date;
  readonly tries: number;
}

/** Takes the next one that may go: it is nobody else's until a moment that is later than any mail server may take. */
async function takeNext(db: Knex, now: Date): Promise<Waiting | undefined> {
  const next = db('reminders')
    .whereNull('sent_at')
    .where('not_before', '<=', now)
    .where((free) => free.whereNull('sending_until').orWhere('sending_until', '<=', now))
    .whereNot({ complaint: NOT_WANTED })
    // of a recheck that is held back nothing is told, until it is let go again
    .whereNotExists(
      db('rechecks as r').select(db.raw('1')).whereRaw('r.id = reminders.recheck_id and r.held'),
    )
    .orderBy(['not_before', 'id'])
    .limit(1)
    .forUpdate()
    .skipLocked()
    .select('id');
  // equal to it, and not in it: what is in a list may be asked for once a row, and each time finds the next
  const [taken] = await db('reminders')
    .where('id', next)
    .update({ sending_until: new Date(now.getTime() + SENDING_MS) })
    .returning('*');
  return taken as Waiting | undefined;
}

async function sendOne(
  db: Knex,
  mailer: Mailer,
  letter: Waiting,
  now: Date,
): Promise<'sent' | 'not-sent' | 'server-away'> {
  const { id, address: to, subject, body, made_at: at, tries } = letter;
  const row = db('reminders').where({ id });
  if (!(await stillWanted(db, letter))) {
    await row.update({ complaint: NOT_WANTED, sending_until: null });
    return 'not-sent';
  }
  try {
    await mailer.send({ id, to, subject, body, at });
  } catch (error) {
    const minutes = Math.min(LONGEST_WAIT_MINUTES, FIRST_WAIT_MINUTES * 2 ** tries);
    await row.update({
      ...{ tries: tries + 1, complaint: (error as Error).message.slice(0, LONGEST_COMPLAINT) },
      ...{ not_before: new Date(now.getTime() + minutes * 60_000), sending_until: null },
    });
    return error instanceof MailServerAway ? 'server-away' : 'not-sent';
  }
  await row.update({ sent_at: now, complaint: '', sending_until: null });
  return 'sent';
}

/** How many letters were tried and could not be sent yet; those that nobody wants any more are none of them. */
export async function countUnsent(db: Knex): Promise<number> {
  const row = await db('reminders')
    .whereNull('sent_at')
    .where('tries', '>', 0)
    .whereNot({ complaint: NOT_WANTED })
    .count<{ count: string }[]>('id as count')
    .first();
  return Number(row!.count);
}

/** What stands beside a reminder that came to nothing before it was sent. */
const NOT_WANTED = 'not wanted any more';

/** Whether what it tells is still so: the recheck is still planned, and its owner still wishes to be told there. */
async function stillWanted(db: Knex, row: Waiting): Promise<boolean> {
  const recheck = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .leftJoin('owners as o', 'o.id', 'e.owner_id')
    .where({ 'r.id': row.recheck_id, 'r.status': 'planned' })
    .whereNull('e.put_away_at')
    .first('o.tells', 'o.email');
  if (!recheck) return false;
  return row.recipient === 'lead' || (recheck.tells === 'mail' && recheck.email === row.address);
}
