import { mkdtemp, rm, stat } from 'node:fs/promises';
import { get, type IncomingMessage } from 'node:http';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, type AddressInfo } from 'node:net';
import { connect as connectTls, createServer, type TLSSocket } from 'node:tls';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { authorityIn, certificateFor } from '../share/authority.ts';
import { hostOf, isOwnHost } from '../share/hosts.ts';
import { share, type Shared } from '../share/share.ts';
import { cookiesOf, LEAD, TestShop } from './shop.ts';

let shop: TestShop;
let folder: string;
let shared: Shared;
let cert: string;
beforeAll(async () => {
  shop = await TestShop.open();
  folder = await mkdtemp(join(tmpdir(), 'zero-lash-share-'));
  shared = await share(shop.app, { folder, port: 0, addresses: ['127.0.0.1'] });
  ({ cert } = await authorityIn(folder, []));
});
afterAll(async () => {
  await shared.close();
  await shop.close();
  await rm(folder, { recursive: true });
});

interface Came {
  readonly status: number;
  readonly headers: IncomingMessage['headers'];
  readonly body: Buffer;
  readonly trusted: boolean;
}

/** Asks over HTTPS as a tablet does, trusting nobody but the authority it was given. */
function ask(
  path: string,
  {
    ca = cert,
    host,
    method = 'GET',
    body = '',
    cookie = '',
  }: Partial<Record<'ca' | 'host' | 'method' | 'body' | 'cookie', string>> = {},
): Promise<Came> {
  return new Promise((resolve, reject) => {
    const sent = request(
      `${shared.address}${path}`,
      {
        ...{ ca, method, agent: false, servername: 'localhost' },
        headers: { ...(host ? { host } : {}), cookie, 'content-type': 'application/json' },
      },
      (answer) => void gathered(answer).then(resolve, reject),
    );
    sent.once('error', reject);
    sent.end(body);
  });
}

async function gathered(answer: IncomingMessage): Promise<Came> {
  const parts: Buffer[] = [];
  const { authorized = false } = answer.socket as TLSSocket;
  for await (const part of answer) parts.push(part as Buffer);
  return {
    status: answer.statusCode!,
    headers: answer.headers,
    body: Buffer.concat(parts),
    trusted: authorized,
  };
}

const askPlainly = (path: string, method = 'GET', host?: string) =>
  new Promise<Came>((resolve, reject) => {
    get(
      `${shared.trustAddress}${path}`,
      { method, agent: false, headers: host ? { host } : {} },
      (answer) => void gathered(answer).then(resolve, reject),
    ).once('error', reject);
  });

describe('a shared server', () => {
  it('is the same program over HTTPS, trusted by whoever has the shop’s certificate, and by nobody else', async () => {
    const health = await ask('/api/health');
    expect(health).toMatchObject({ status: 200, trusted: true });
    expect((await ask('/api/today')).status).toBe(401);
    const other = await authorityIn(await mkdtemp(join(tmpdir(), 'zero-lash-other-')), []);
    await expect(ask('/api/health', { ca: other.cert })).rejects.toThrow(/certificate|permitted subtree/);
  });

  it('signs in there with a cookie that goes over HTTPS only', async () => {
    const body = JSON.stringify({ name: LEAD, passphrase: 'brass-and-feeler' });
    const { status, headers } = await ask('/api/session', { method: 'POST', body });
    expect(status).toBe(200);
    const session = headers['set-cookie']!.find((each) => each.startsWith('zero_lash='))!;
    expect(session).toMatch(/; Secure/);
    expect((await ask('/api/today', { cookie: cookiesOf(headers['set-cookie']) })).status).toBe(200);
  });

  it('is refused to whoever comes by another name, over HTTPS and on loopback', async () => {
    const refused = await ask('/api/health', { host: 'cheap-gaskets.example' });
    expect(refused.status).toBe(421);
    expect(JSON.parse(String(refused.body))).toMatchObject({ code: 'other_host' });
    const here = await shop.app.inject({
      url: '/api/health',
      headers: { host: 'cheap-gaskets.example:4510' },
    });
    expect(here.statusCode).toBe(421);
    expect(
      (await shop.app.inject({ url: '/api/health', headers: { host: '127.0.0.1:4510' } })).statusCode,
    ).toBe(200);
    expect((await askPlainly('/', 'GET', 'cheap-gaskets.example')).status).toBe(421);
  });

  it('explains itself on plain HTTP, hands out the certificate there, and nothing of the shop', async () => {
    const page = await askPlainly('/');
    expect(page.headers['content-type']).toContain('text/html');
    expect(String(page.body).replaceAll('<wbr>', '')).toContain(shared.fingerprint);
    expect(String(page.body)).toContain(`href="${shared.address}"`);
    const file = await askPlainly('/zero-lash-shop.crt');
    expect(file.headers['content-type']).toBe('application/x-x509-ca-cert');
    const asText = `-----BEGIN CERTIFICATE-----\n${file.body
      .toString('base64')
      .match(/.{1,64}/g)!
      .join('\n')}\n-----END CERTIFICATE-----\n`;
    expect((await ask('/api/health', { ca: asText })).trusted).toBe(true);
    for (const path of ['/api/health', '/api/today', '/engines', '/authority.json', '/../authority.json'])
      expect((await askPlainly(path)).status, path).toBe(404);
    expect((await askPlainly('/', 'POST')).status).toBe(405);
  });

  it('listens where it was told, and nowhere else', async () => {
    const { port } = new URL(shared.address);
    const reached = (host: string, at: string) =>
      new Promise<boolean>((resolve) => {
        const socket = connect(Number(at), host, () => resolve(true));
        socket.once('error', () => resolve(false)).once('connect', () => socket.destroy());
      });
    expect(await reached('127.0.0.1', port)).toBe(true);
    expect(await reached('127.0.0.2', port)).toBe(false);
    expect(await reached('127.0.0.2', new URL(shared.trustAddress).port)).toBe(false);
    const elsewhere = share(shop.app, { folder, port: 0, addresses: ['192.0.2.77'] });
    await expect(elsewhere).rejects.toThrow('This machine is not reached at 192.0.2.77.');
  });

  it('has an authority that vouches for its own names and network, and for nobody else', async () => {
    const authority = await authorityIn(folder, []);
    expect(authority.limited).toBe(true);
    /** What a tablet that trusts the authority says of a server that shows a certificate of it for some name. */
    const seen = async (name: string) => {
      const made = await certificateFor(authority, [name]);
      const server = createServer({ key: made.key, cert: made.cert }, (socket) => socket.end());
      await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
      const { port } = server.address() as AddressInfo;
      const answer = await new Promise<string>((resolve) => {
        const socket = connectTls(
          { port, host: '127.0.0.1', ca: authority.cert, checkServerIdentity: () => undefined },
          () => resolve('trusted'),
        );
        socket.once('error', ({ message }) => resolve(message)).once('secureConnect', () => socket.destroy());
      });
      server.close();
      return answer;
    };
    for (const own of ['localhost', '127.0.0.1', '192.168.4.9', 'fd00::9'])
      expect(await seen(own), own).toBe('trusted');
    for (const foreign of ['cheap-gaskets.example', '203.0.113.9', '2001:db8::1', 'localhost.example'])
      expect(await seen(foreign), foreign).toContain('permitted subtree violation');
  });

  it('keeps one authority, whoever asks first, and its key from everybody else', async () => {
    const place = await mkdtemp(join(tmpdir(), 'zero-lash-share-'));
    const made = await Promise.all([authorityIn(place, []), authorityIn(place, []), authorityIn(place, [])]);
    expect(new Set(made.map(({ fingerprint }) => fingerprint)).size).toBe(1);
    expect(((await stat(join(place, 'authority.json'))).mode & 0o777).toString(8)).toBe('600');
    await rm(place, { recursive: true });
  });
});

describe('the name somebody came by', () => {
  it.each([
    ['127.0.0.1:4510', '127.0.0.1', true],
    ['[::1]:4510', '::1', true],
    ['LocalHost', 'localhost', true],
    ['203.0.113.9', '203.0.113.9', false],
    ['localhost.cheap-gaskets.example', 'localhost.cheap-gaskets.example', false],
    ['127.0.0.1.cheap-gaskets.example', '127.0.0.1.cheap-gaskets.example', false],
    ['shop.example:443', 'shop.example', true],
    ['a b', null, false],
    [undefined, null, false],
  ])('%s is %s: own %s', (header, host, own) => {
    expect(hostOf(header)).toBe(host);
    expect(isOwnHost(hostOf(header), ['shop.example'])).toBe(own);
  });
});
