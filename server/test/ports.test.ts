import { readFile } from 'node:fs/promises';
import { createServer, type AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { freePort } from '../../scripts/server.mjs';

test('a port that was found free is none that the system gives to a connection meanwhile', async () => {
  const range = await readFile('/proc/sys/net/ipv4/ip_local_port_range', 'utf8').catch(() => '32768 60999');
  const [first, last] = range.split(/\s+/).map(Number) as [number, number];
  const found = await Promise.all(Array.from({ length: 40 }, freePort));
  for (const port of found) expect(port + 2 < first || port > last).toBe(true);
  // no two servers are sent to one port, nor to what another takes beside its own
  const taken = found.flatMap((port) => [port, port + 1, port + 2]);
  expect(new Set(taken).size).toBe(taken.length);
});

test('a server can take the port it was given, and the two beside it', async () => {
  const port = await freePort();
  const servers = [port, port + 1, port + 2].map((each) => createServer().listen(each, '127.0.0.1'));
  await Promise.all(
    servers.map((server) => new Promise((resolve) => server.once('listening', () => resolve(null)))),
  );
  expect(servers.map((server) => (server.address() as AddressInfo).port)).toEqual([port, port + 1, port + 2]);
  await Promise.all(servers.map((server) => new Promise((resolve) => server.close(resolve))));
});
