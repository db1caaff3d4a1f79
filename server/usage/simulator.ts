import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A reading as the simulated feed sends it. */
export interface FeedReading {
  readonly serial: string;
  readonly at: string;
  readonly usage: number;
  readonly heatCycles?: number;
}

/** A simulated meter feed as it runs. */
export interface SimulatedFeed {
  readonly port: number;
  /** sends one more from now on; a text goes out as it is, however broken */
  readonly add: (line: FeedReading | string) => void;
  readonly stop: () => Promise<void>;
}

/**
 * A simulated feed of engine meters: over HTTP on loopback, `GET /readings?since=MOMENT` answers a JSON object a line. `POST
 * /readings` adds lines to it.
 *
 * @returns the feed, listening; its port where 0 was asked for
 */
export async function startSimulatedFeed(
  port: number,
  lines: readonly (FeedReading | string)[] = [],
): Promise<SimulatedFeed> {
  const sent: (FeedReading | string)[] = [...lines];
  const server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://feed');
    if (pathname !== '/readings') return void response.writeHead(404).end();
    if (request.method === 'POST') {
      let body = '';
      request.on('data', (chunk: Buffer) => (body += chunk.toString()));
      request.on('end', () => {
        sent.push(...body.split('\n').filter(Boolean));
        response.writeHead(204).end();
      });
      return;
    }
    const since = Date.parse(searchParams.get('since') ?? '') || -Infinity;
    const wanted = sent.filter((line) => typeof line === 'string' || Date.parse(line.at) >= since);
    response.writeHead(200, { 'content-type': 'application/x-ndjson' });
    response.end(wanted.map((line) => (typeof line === 'string' ? line : JSON.stringify(line))).join('\n'));
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    add: (line) => void sent.push(line),
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
