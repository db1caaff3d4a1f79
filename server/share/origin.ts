import type { FastifyRequest } from 'fastify';
import type { Knex } from 'knex';
import { hostOf, isLoopback } from './hosts.ts';

declare module 'fastify' {
  interface FastifyInstance {
    /** where the server is shared on the shop's network; empty where it is not */
    sharedAt: { address: string };
  }
}

/** Where a request came in, as its own address bar has it. */
export const askedAt = ({ protocol, host }: Pick<FastifyRequest, 'protocol' | 'host'>): string =>
  `${protocol}://${host}`;

/**
 * Where what is printed leads: the address that the shop gives for itself, or else the one it was asked at, unless that is this
 * machine's own and leads nobody else here.
 *
 * @returns null where nobody could follow it
 * @example await printedOrigin(db, request) // 'https://192.0.2.7:5181'
 */
export async function printedOrigin(
  db: Knex,
  request: Pick<FastifyRequest, 'protocol' | 'host'>,
): Promise<string | null> {
  const { address } = (await db('shop').first('address'))!;
  if (address !== '') return address;
  return isLoopback(hostOf(request.host)) ? null : askedAt(request);
}
