import autocannon from 'autocannon';
import { median } from './table.mjs';

const CONNECTIONS = 20;
const SECONDS = 5;
const WARM_UP_SECONDS = 4;
const ROUNDS = 3;

async function load(url, headers, duration = SECONDS) {
  const result = await autocannon({ url, headers, connections: CONNECTIONS, duration });
  if (result.non2xx > 0 || result.errors > 0)
    throw new Error(`${url}: ${result.non2xx} refusals, ${result.errors} errors`);
  return { perSecond: result.requests.average, p99: result.latency.p99 };
}

/**
 * Each of several addresses against a route of the same server that only runs `select 1`, by turns.
 *
 * @param {Record<string, string>} addresses by what they are called
 */
export async function benchReads(base, cookie, addresses) {
  await load(`${base}/api/health`, {}, WARM_UP_SECONDS);
  for (const path of Object.values(addresses)) await load(`${base}${path}`, { cookie }, 1);
  const bare = [];
  const runs = Object.fromEntries(Object.keys(addresses).map((name) => [name, []]));
  for (let round = 0; round < ROUNDS; round += 1) {
    bare.push(await load(`${base}/api/health`, {}));
    for (const [name, path] of Object.entries(addresses))
      runs[name].push(await load(`${base}${path}`, { cookie }));
  }
  const rate = (several) => median(several.map(({ perSecond }) => perSecond));
  return {
    bare: rate(bare),
    reads: Object.entries(runs).map(([name, several]) => ({
      ...{ name, perSecond: rate(several), ratio: rate(several) / rate(bare) },
      p99: median(several.map(({ p99 }) => p99)),
    })),
  };
}
