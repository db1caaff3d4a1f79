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

/** Today's data against a route of the same server that only runs `select 1`, by turns. */
export async function benchToday(base, cookie) {
  await load(`${base}/api/health`, {}, WARM_UP_SECONDS);
  await load(`${base}/api/today`, { cookie }, WARM_UP_SECONDS);
  const bare = [];
  const today = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    bare.push(await load(`${base}/api/health`, {}));
    today.push(await load(`${base}/api/today`, { cookie }));
  }
  const rate = (runs) => median(runs.map(({ perSecond }) => perSecond));
  return {
    bare: rate(bare),
    today: rate(today),
    ratio: rate(today) / rate(bare),
    p99: median(today.map(({ p99 }) => p99)),
  };
}
