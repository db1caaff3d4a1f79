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

/**
 * How far a device's clock goes ahead of this server's, in ms, by what it says as it sends.
 *
 * @param said the `device-clock` header; 0 where there is none that can be read
 */
function clockAhead(said: string | string[] | undefined): number {
  const parsed = moment.safeParse(said);
  return parsed.success ? Date.parse(parsed.data) - Date.now() : 0;
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
