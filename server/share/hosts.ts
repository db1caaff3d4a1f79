import { isIP } from 'node:net';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { Refusal } from '../plugins/errors.ts';
import { ownAddresses, ownNames } from './addresses.ts';

const LOOPBACK = new Set(['localhost', '127.0.0.1', '::1']);

/** Whether a host is this machine's loopback: what leads there leads nobody else here. */
export const isLoopback = (host: string | null): boolean =>
  host !== null && (LOOPBACK.has(host) || /^127\./.test(host));

/** The host a `Host` header names, without its port; null where there is none that can be read. */
export function hostOf(header: string | undefined): string | null {
  const match = /^(?:\[([0-9a-f:.]+)\]|([a-z0-9._-]+))(?::\d{1,5})?$/i.exec(header ?? '');
  return (match?.[1] ?? match?.[2])?.toLowerCase().replace(/\.$/, '') ?? null;
}

/**
 * Whether a host is this machine itself: its loopback, an address it has, a name it goes by, or one it was told of.
 *
 * @param told names it is reached by besides, such as that of the proxy before it
 */
export function isOwnHost(host: string | null, told: readonly string[] = []): boolean {
  if (host === null) return false;
  if (LOOPBACK.has(host) || told.includes(host)) return true;
  return isIP(host) ? ownAddresses().includes(host) : ownNames().includes(host);
}

/**
 * Refuses whoever came by a name that is not this machine's: a page of a stranger whose name was made to lead here is so
 * kept from asking anything in the name of whoever is signed in.
 */
export const ownHosts = plugin(
  (app: FastifyInstance, { told }: { readonly told: readonly string[] }, done) => {
    app.addHook('onRequest', (request, _reply, next) => {
      next(isOwnHost(hostOf(request.headers.host), told) ? undefined : new Refusal('other_host'));
    });
    done();
  },
);
