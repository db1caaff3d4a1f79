import type { Knex } from 'knex';

/** Days a write's key is remembered: far longer than any retry. */
const KEY_DAYS = 30;
/** Days a device is known by that nobody signs in on any more. */
const DEVICE_DAYS = 400;

/** How often a running server tidies. */
export const CLEANUP_EVERY_MS = 3_600_000;

/** Lets go of what nobody can need any more: sessions that ran out, old misses at the door, answers long given. */
export async function cleanUp(db: Knex): Promise<void> {
  await db('sessions').whereRaw('expires_at < now()').delete();
  await db('sign_in_tries').whereRaw("last_at < now() - interval '1 day'").delete();
  await db('known_devices').whereRaw(`last_at < now() - interval '${DEVICE_DAYS} days'`).delete();
  await db('time_questions').whereRaw(`asked_at < now() - interval '${KEY_DAYS} days'`).delete();
  await db('gauge_holds').whereRaw('until < now()').delete();
  await db('writes').whereRaw(`at < now() - interval '${KEY_DAYS} days'`).delete();
}
