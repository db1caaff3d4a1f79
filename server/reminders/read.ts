import type { Mailbox, Reminder } from '@zero-lash/contract/reminders';
import type { Knex } from 'knex';
import { shopDay } from '../clock.ts';
import { TOLD_OF_SQL, toldOfOn } from './make.ts';

const SHOWN = 100;

/**
 * What was sent and what waits, newest first; and whose owner cannot be told.
 *
 * @param addresses whether whoever asks sees where letters go, which a mail server's complaint says too
 */
export async function readMailbox(db: Knex, addresses: boolean): Promise<Omit<Mailbox, 'through'>> {
  const rows = (await db('reminders as m')
    .join('rechecks as r', 'r.id', 'm.recheck_id')
    .join('engines as e', 'e.id', 'r.engine_id')
    .orderBy([{ column: 'm.made_at', order: 'desc' }, 'm.id'])
    .limit(SHOWN)
    .select({
      ...{ id: 'm.id', recheckId: 'r.id', engineId: 'e.id', engine: 'e.name', stage: 'm.stage' },
      ...{ recipient: 'm.recipient', address: 'm.address', subject: 'm.subject', body: 'm.body' },
      ...{ madeAt: 'm.made_at', notBefore: 'm.not_before', sentAt: 'm.sent_at', tries: 'm.tries' },
      complaint: 'm.complaint',
    })) as (Omit<Reminder, 'madeAt' | 'notBefore' | 'sentAt'> & {
    madeAt: Date;
    notBefore: Date;
    sentAt: Date | null;
  })[];
  const shop = (await db('shop').first('remind_days'))!;
  const unreached = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .leftJoin('owners as o', 'o.id', 'e.owner_id')
    .where({ 'r.status': 'planned', 'r.held': false })
    .whereNull('e.put_away_at')
    .whereRaw(TOLD_OF_SQL, toldOfOn(await shopDay(db), shop.remind_days))
    .whereRaw(`(o.id is null or (o.tells = 'mail' and o.email = ''))`)
    .orderByRaw('lower(e.name)')
    .limit(SHOWN)
    .select({ engineId: 'e.id', engine: 'e.name', owner: 'e.owner', ownerId: 'o.id' });
  return {
    unreached,
    reminders: rows.map(({ madeAt, notBefore, sentAt, ...row }) => ({
      ...row,
      ...(addresses
        ? {}
        : { address: null, complaint: row.tries > 0 ? 'it could not be sent' : row.complaint }),
      madeAt: madeAt.toISOString(),
      notBefore: notBefore.toISOString(),
      sentAt: sentAt?.toISOString() ?? null,
    })),
  };
}
