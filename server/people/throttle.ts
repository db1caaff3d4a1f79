import { setTimeout as pause } from 'node:timers/promises';
import ipaddr from 'ipaddr.js';
import type { Knex } from 'knex';
import limit from 'p-limit';

/** Somebody at the door: whom they say they are, where they come from, and on what. */
export interface Caller {
  /** whoever goes by the name they gave; null where nobody does */
  readonly personId: string | null;
  /** a mark that the name they gave shares with others: nobody's guesses are kept as they were typed */
  readonly nameMark: string;
  readonly address: string;
  /** the mark of a device on which this person signed in before; null for any other */
  readonly knownDevice: string | null;
}

/** Misses that cost no waiting. Many may come from one address: a whole shop stands behind some. */
const FREE = { person: 5, name: 5, device: 5, address: 20 } as const;
const FIRST_WAIT_SECONDS = 5;
const LONGEST_WAIT_SECONDS = 900;
/** How long a miss is remembered. */
const MEMORY = '1 day';
/** A try that is looked at for longer than this was left behind by a server that ended. */
const LEFT_BEHIND = '30 seconds';
/** How long somebody stands in line behind others who are looked at, and how often it is asked whether they are through. */
const IN_LINE_MS = 15_000;
const ASK_FIRST_MS = 15;
const ASK_AT_LEAST_MS = 250;

/** However many stand in line, they leave the others' connections to the database alone. */
const fewAtOnce = limit(3);

type Kind = keyof typeof FREE;

/**
 * What a try is counted by. A device that this person signed in on before has a count of its own, so that no stranger's
 * misses lock its owner out; any other try counts against the person and against the address it comes from.
 */
function subjectsOf({ personId, nameMark, address, knownDevice }: Caller): string[] {
  if (knownDevice !== null) return [`device:${knownDevice}`];
  const who = personId === null ? `name:${nameMark}` : `person:${personId}`;
  return [who, `address:${networkOf(address)}`].sort();
}

const kindOf = (subject: string) => subject.slice(0, subject.indexOf(':')) as Kind;

/** An address as it is counted: of the long ones the half that names a network, of which one caller has as many as they like. */
function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const read = ipaddr.process(address);
  return 'parts' in read ? read.parts.slice(0, 4).join(':') : read.toString();
}

/**
 * Lets somebody try, one of no more at once than may miss: whoever comes while that many are being looked at stands in line until
 * they are through. So sixty guesses at once are no more than one after another, and fifty honest people all come in.
 *
 * @returns seconds to wait, where there were too many misses; 0 where this try may be made, which `endTry` ends
 */
export async function beginTry(db: Knex, caller: Caller): Promise<number> {
  const subjects = subjectsOf(caller);
  const until = Date.now() + IN_LINE_MS;
  for (let ms = ASK_FIRST_MS; ; ms = Math.min(ms * 1.5, ASK_AT_LEAST_MS)) {
    const wait = await fewAtOnce(() => db.transaction((own) => ask(own, subjects)));
    if (wait !== 'in-line') return wait;
    if (Date.now() > until) return FIRST_WAIT_SECONDS;
    await pause(ms);
  }
}

interface Counted {
  readonly subject: string;
  readonly misses: number;
  readonly pending: number;
  readonly since: number;
}

async function ask(db: Knex.Transaction, subjects: readonly string[]): Promise<number | 'in-line'> {
  await db('sign_in_tries')
    .insert(subjects.map((subject) => ({ subject, misses: 0 })))
    .onConflict('subject')
    .ignore();
  const rows = await db('sign_in_tries')
    .whereIn('subject', subjects)
    .orderBy('subject')
    .forNoKeyUpdate()
    .select<Counted[]>(
      'subject',
      db.raw(`case when last_at < now() - interval '${MEMORY}' then 0 else misses end as misses`),
      db.raw(`case when pending_at > now() - interval '${LEFT_BEHIND}' then pending else 0 end as pending`),
      db.raw('extract(epoch from clock_timestamp() - last_at)::float as since'),
    );
  const waits = rows.map(({ subject, misses, since }) => {
    const over = misses - FREE[kindOf(subject)];
    return over < 0 ? 0 : Math.min(LONGEST_WAIT_SECONDS, FIRST_WAIT_SECONDS * 2 ** over) - since;
  });
  const wait = Math.ceil(Math.max(...waits));
  if (wait > 0) return wait;
  if (rows.some(({ subject, misses, pending }) => pending >= Math.max(1, FREE[kindOf(subject)] - misses)))
    return 'in-line';
  for (const { subject, misses, pending } of rows)
    await db('sign_in_tries')
      .where({ subject })
      .update({ misses, pending: pending + 1, pending_at: db.raw('clock_timestamp()') });
  return 0;
}

/**
 * Says what came of a try that was let in. After a good one the person's own misses are forgotten; those of the address stand, so
 * that nobody clears them for others by signing in themself. One that came to nothing, because something broke, is neither.
 */
export async function endTry(db: Knex, caller: Caller, outcome: 'good' | 'miss' | 'broken'): Promise<void> {
  const over = { pending: db.raw('greatest(pending - 1, 0)') };
  for (const subject of subjectsOf(caller))
    await db('sign_in_tries')
      .where({ subject })
      .update(
        outcome === 'miss'
          ? { ...over, misses: db.raw('misses + 1'), last_at: db.raw('clock_timestamp()') }
          : outcome === 'good' && kindOf(subject) !== 'address'
            ? { ...over, misses: 0 }
            : over,
      );
}
