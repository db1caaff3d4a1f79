import { moment } from '@zero-lash/contract/values';
import type { FastifyRequest } from 'fastify';
import { AHEAD_MS, clock } from '../clock.ts';
import { Refusal } from './errors.ts';
import { personOf } from './signIn.ts';
import { writeKey } from './writes.ts';

/** Who a write at the bench comes from, under which id its row is kept, and by which clock it was done. */
export interface WriteContext {
  /** the write's own key, made by the device: its row's id */
  readonly key: string;
  readonly personId: string;
  readonly name: string;
  readonly leads: boolean;
  /** ms that the device's clock goes ahead of this one */
  readonly clockAhead: number;
}

/** The context of the write that a request asks for. */
export function contextOf(request: FastifyRequest): WriteContext {
  const { id, name, role } = personOf(request);
  return {
    key: writeKey(request),
    personId: id,
    name,
    leads: role === 'lead',
    clockAhead: clockAhead(request.headers['device-clock']),
  };
}

/** ms that a write may take to arrive, in a crowded shop, without its clock being called slow for it. */
const TRANSIT_MS = 10_000;

/**
 * How far a device's clock goes ahead of the database's, in ms, by what it says as it sends.
 *
 * Rule: what seems a slow clock by no more than a write may take to arrive is a slow network: of two readings the one taken
 * first must not stand because it came in more slowly.
 *
 * @param said the `device-clock` header; 0 where there is none that can be read
 * @example clockAhead('2031-01-01T10:00:00Z') // 3_600_000 at nine o'clock
 */
export function clockAhead(said: string | string[] | undefined): number {
  const parsed = moment.safeParse(said);
  if (!parsed.success) return 0;
  const ahead = Date.parse(parsed.data) - clock.now().getTime();
  return ahead < 0 && ahead >= -TRANSIT_MS ? 0 : ahead;
}

/**
 * When something was done, by the database's clock: not in the future, and not before what it belongs to was there. What clocks may be
 * apart is put right; what is further off was written down while a clock was wrong, and only who did it knows when it was.
 *
 * @param takenAt as the device says; null for now
 * @param since when what it belongs to was opened
 * @throws Refusal `taken_when` where that cannot be: the device asks whoever did it
 * @example whenTaken('2030-05-01T08:00:00Z', context, round.openedAt)
 */
export function whenTaken(takenAt: string | null, { clockAhead }: WriteContext, since: Date): Date {
  const now = clock.now().getTime();
  const taken = takenAt === null ? now : Date.parse(takenAt) - clockAhead;
  // a belonging that is itself from the future keeps nobody from writing now
  const from = Math.min(since.getTime(), now);
  if (taken > now + AHEAD_MS)
    throw new Refusal('taken_when', { detail: said(taken, 'which has not come yet') });
  if (taken < from - AHEAD_MS)
    throw new Refusal('taken_when', {
      detail: said(taken, `before what it belongs to was begun, at ${inWords(from)}`),
    });
  return new Date(Math.max(from, Math.min(taken, now)));
}

const inWords = (ms: number) => `${new Date(ms).toISOString().slice(0, 16).replace('T', ' ')} UTC`;
const said = (ms: number, why: string) =>
  `By the clock of the device it was done at ${inWords(ms)}, ${why}: that clock was wrong. When was it?`;
