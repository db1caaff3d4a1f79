import { createServer as createPlainServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer, type Server } from 'node:https';
import type { AddressInfo, Server as NetServer } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { everySoOften } from '../background.ts';
import { answerClientError, answerExpectations } from '../plugins/lowHttp.ts';
import { inUrl, ownAddresses, ownNames } from './addresses.ts';
import { asFile, authorityIn, certificateFor, type Authority } from './authority.ts';
import { hostOf, isOwnHost } from './hosts.ts';
import { trustPage } from './trustPage.ts';

const LOOK_AGAIN_MS = 60_000;

/** Where and how a server is shared. */
interface SharePlace {
  /** where the certificate authority is kept */
  readonly folder: string;
  /** the port of the program, and the next one of the page that explains; 0 takes any that are free */
  readonly port: number;
  /** the addresses it is shared at; those the machine has where they are left out */
  readonly addresses?: readonly string[];
}

/** A server that is shared on the shop's network. */
export interface Shared {
  /** where a tablet opens the program, over HTTPS */
  readonly address: string;
  /** where a tablet learns to trust it, over plain HTTP: nothing of the shop is there */
  readonly trustAddress: string;
  readonly fingerprint: string;
  /** its authority vouches for this machine's names and the shop's own network alone */
  readonly limited: boolean;
  readonly close: () => Promise<void>;
}

/**
 * Serves the same program over HTTPS on the machine's own addresses, with a certificate of the shop's own authority, and
 * beside it the page that hands out that authority's certificate.
 *
 * @throws Error where the machine is on no network, or has not an address that it was told
 */
export async function share(app: FastifyInstance, { folder, port, addresses }: SharePlace): Promise<Shared> {
  const here = () => addresses ?? ownAddresses();
  const [first] = here();
  if (!first) throw new Error('This machine is on no network: there is nobody to share with.');
  const authority = await authorityIn(folder, [...here(), ...ownNames()]);
  let known = here().join();
  const certified = async () => {
    const { key, cert } = await certificateFor(authority, [...here(), ...ownNames()]);
    return { key, cert };
  };
  const { requestTimeout, headersTimeout } = app.server;
  const certificate = await certified();
  const secured = places(addresses).map((host) => {
    const secure = createServer({ ...certificate, requestTimeout, headersTimeout }, app.routing);
    secure.on('clientError', answerClientError);
    secure.on('tlsClientError', (_error, socket) => socket.destroy());
    answerExpectations(secure as never);
    return { host, server: secure };
  });
  let address = '';
  const plain = places(addresses).map((host) => ({
    host,
    server: createPlainServer((request, reply) => explain(request, reply, authority, address)),
  }));
  const close = () => Promise.all([...secured, ...plain].map(({ server }) => ended(server)));
  try {
    address = `https://${inUrl(first)}:${await listening(secured, port)}`;
    const trustPort = await listening(plain, port === 0 ? 0 : port + 1);
    // a machine may be given another address while it runs
    const stopLooking = everySoOften(app.log, 'looking at the addresses', LOOK_AGAIN_MS, async () => {
      if (here().join() === known) return;
      known = here().join();
      const again = await certified();
      for (const { server } of secured) server.setSecureContext(again);
    });
    return {
      address,
      trustAddress: `http://${inUrl(first)}:${trustPort}`,
      fingerprint: authority.fingerprint,
      limited: authority.limited,
      close: async () => {
        stopLooking();
        await close();
      },
    };
  } catch (error) {
    await close();
    throw error;
  }
}

/** Where it listens: at the addresses that were told and nowhere else, or at all the machine has. */
const places = (told: readonly string[] | undefined): readonly (string | undefined)[] => told ?? [undefined];

interface Listening {
  readonly host: string | undefined;
  readonly server: NetServer;
}

/** Has each of some servers listen at its own address, all at one port, which is given back. */
async function listening(servers: readonly Listening[], wanted: number): Promise<number> {
  let port = wanted;
  for (const { host, server } of servers)
    port = await new Promise<number>((resolve, reject) => {
      server.once('error', (error: NodeJS.ErrnoException) =>
        reject(NOT_HERE.has(error.code ?? '') ? new Error(`This machine is not reached at ${host}.`) : error),
      );
      server.listen({ port, host }, () => resolve((server.address() as AddressInfo).port));
    });
  return port;
}

/** What the system says of an address that is none of this machine's. */
const NOT_HERE = new Set(['EADDRNOTAVAIL', 'ENOTFOUND', 'EAI_AGAIN', 'EINVAL']);

function ended(server: Pick<Server, 'closeAllConnections'> & NetServer): Promise<void> {
  server.closeAllConnections();
  return new Promise((resolve) => server.close(() => resolve()));
}

/** Answers on the plain port: the page, the certificate, and nothing else. */
function explain(
  { method, url = '/', headers }: IncomingMessage,
  reply: ServerResponse,
  authority: Authority,
  address: string,
): void {
  const say = (status: number, type: string, body: string | Buffer, more: Record<string, string> = {}) =>
    reply.writeHead(status, { ...SAFE, 'content-type': type, ...more }).end(method === 'HEAD' ? '' : body);
  const host = hostOf(headers.host);
  if (!isOwnHost(host)) return void say(421, 'text/plain', 'This is not the server of that name.\n');
  if (method !== 'GET' && method !== 'HEAD')
    return void say(405, 'text/plain', 'There is only something to read here.\n');
  // whoever came by one of the machine's other addresses goes on by that one
  const onward = Object.assign(new URL(address), { hostname: inUrl(host!) }).origin;
  if (url === '/') say(200, 'text/html; charset=utf-8', trustPage(authority, onward));
  else if (url === '/zero-lash-shop.crt')
    say(200, 'application/x-x509-ca-cert', asFile(authority.cert), {
      'content-disposition': 'attachment; filename="zero-lash-shop.crt"',
    });
  else say(404, 'text/plain', 'There is nothing here by that name.\n');
}

const SAFE = {
  'cache-control': 'no-store',
  'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
  'referrer-policy': 'no-referrer',
  'x-content-type-options': 'nosniff',
  connection: 'close',
};
