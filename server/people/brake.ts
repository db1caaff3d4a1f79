import type { Knex } from 'knex';

/** Somebody at the door: whom they say they are, where they come from, and on what. */
export interface Caller {
  /** whoever goes by the name they gave; null where nobody does */
  readonly personId: string | null;
  readonly name: string;
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

type Kind = keyof typeof FREE;

/**
 * What a try is counted by. A device that this person signed in on before has a count of its own, so that no stranger's
 * misses lock its owner out; any other try counts against the person and against the address it comes from.
 */
function subjectsOf({ personId, name, address, knownDevice }: Caller): string[] {
  if (knownDevice !== null) return [`device:${knownDevice}`];
  const who = personId === null ? `name:${name.normalize('NFKC').toLowerCase()}` : `person:${personId}`;
  return [who, `address:${address}`].sort();
}

const kindOf = (subject: string) => subject.slice(0, subject.indexOf(':')) as Kind;

/**
 * Counts a try before it is made, under a lock, so that sixty at once are no more than one after another.
 *
 * @returns seconds to wait, where there have been too many; 0 where this try may be made
 */
export async function countTry(db: Knex, caller: Caller): Promise<number> {
  const subjects = subjectsOf(caller);
  return db.transaction(async (transaction) => {
    await transaction('sign_in_tries')
      .insert(subjects.map((subject) => ({ subject, misses: 0 })))
      .onConflict('subject')
      .ignore();
    const rows = await transaction('sign_in_tries')
      .whereIn('subject', subjects)
      .orderBy('subject')
      .forNoKeyUpdate()
      .select<{ subject: string; misses: number; since: number; old: boolean }[]>(
        'subject',
        'misses',
        transaction.raw('extract(epoch from clock_timestamp() - last_at)::float as since'),
        transaction.raw(`last_at < now() - interval '${MEMORY}' as old`),
      );
    const waits = rows.map(({ subject, misses, since, old }) => {
      const over = old ? -1 : misses - FREE[kindOf(subject)];
      if (over < 0) return 0;
      return Math.min(LONGEST_WAIT_SECONDS, FIRST_WAIT_SECONDS * 2 ** over) - since;
    });
    const wait = Math.ceil(Math.max(...waits));
    if (wait > 0) return wait;
    await transaction('sign_in_tries')
      .whereIn('subject', subjects)
      .update({
        misses: transaction.raw(
          `case when last_at < now() - interval '${MEMORY}' then 1 else misses + 1 end`,
        ),
        last_at: transaction.raw('clock_timestamp()'),
      });
    return 0;
  });
}

/**
 * The try was a good one. The person's own count is forgotten; the address only gets this try back, so that nobody
 * clears it for others by signing in themself.
 */
export async function forgiveTry(db: Knex, caller: Caller): Promise<void> {
  const [own, shared] = [[] as string[], [] as string[]];
  for (const subject of subjectsOf(caller)) (kindOf(subject) === 'address' ? shared : own).push(subject);
  await db('sign_in_tries').whereIn('subject', own).delete();
  await db('sign_in_tries')
    .whereIn('subject', shared)
    .update({ misses: db.raw('greatest(misses - 1, 0)') });
}
