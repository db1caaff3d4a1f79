import { moment } from '@zero-lash/contract/values';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../plugins/signIn.ts';
import { writeKey } from '../plugins/writes.ts';

/** Whose hand a write at the bench comes from, and under which id its row is kept. */
export interface Hand {
  /** the write's own key, made by the device: its row's id */
  readonly key: string;
  readonly personId: string;
  readonly name: string;
  readonly leads: boolean;
  /** ms that the device's clock goes ahead of this one */
  readonly clockAhead: number;
}

/** The hand a request comes from. */
export function handOf(request: FastifyRequest): Hand {
  const { id, name, role } = personOf(request);
  return {
    key: writeKey(request),
    personId: id,
    name,
    leads: role === 'lead',
    clockAhead: clockAhead(request.headers['device-clock']),
  };
}

/** ms that a write may be on its way, in a crowded shop, without its clock being called slow for it. */
const ON_ITS_WAY_MS = 10_000;

/**
 * How far a device's clock goes ahead of this server's, in ms, by what it says as it sends.
 *
 * Rule: what seems a slow clock by no more than a write may be on its way is a slow network: of two readings the one taken
 * first must not stand because it came in more slowly.
 *
 * @param said the `device-clock` header; 0 where there is none that can be read
 * @example clockAhead('2031-01-01T10:00:00Z') // 3_600_000 at nine o'clock
 */
export function clockAhead(said: string | string[] | undefined): number {
  const parsed = moment.safeParse(said);
  if (!parsed.success) return 0;
  const ahead = Date.parse(parsed.data) - Date.now();
  return ahead < 0 && ahead >= -ON_ITS_WAY_MS ? 0 : ahead;
}

/**
 * When something was done, by this server's clock: not in the future, and not before what it belongs to was there.
 *
 * @param takenAt as the device says; null for now
 * @param since when what it belongs to was opened
 */
export function whenTaken(takenAt: string | null, { clockAhead }: Hand, since: Date): Date {
  const now = Date.now();
  const taken = takenAt === null ? now : Date.parse(takenAt) - clockAhead;
  return new Date(Math.max(since.getTime(), Math.min(taken, now)));
}
