import type { Knex } from 'knex';

/** Days a write's key is remembered: far longer than any retry. */
const KEY_DAYS = 30;

/** Lets go of what nobody can need any more: sessions that ran out, old sign-in failures, keys of writes long done. */
export async function tidy(db: Knex): Promise<void> {
  await db('sessions').whereRaw('expires_at < now()').delete();
  await db('sign_in_failures').whereRaw("at < now() - interval '1 day'").delete();
  await db('writes').whereRaw(`at < now() - interval '${KEY_DAYS} days'`).delete();
}
