import autocannon from 'autocannon';
import { ms } from './rows.mjs';

const CONNECTIONS = 20;
const SECONDS = 1;
const WARM_UP_SECONDS = 4;
/** How often the bare route is to be reached. */
const LEAST_SHARE = 0.3;
const MOST_P99 = 100;

async function load(url, headers, duration = SECONDS) {
  const result = await autocannon({ url, headers, connections: CONNECTIONS, duration });
  if (result.non2xx > 0 || result.errors > 0)
    throw new Error(`${url}: ${result.non2xx} refusals, ${result.errors} errors`);
  return { perSecond: result.requests.average, p99: result.latency.p99 };
}

/** What is read under load: Today, lists, a search, one engine and one build of those that were added. */
async function addressesOf(base, cookie) {
  const answer = await fetch(`${base}/api/engines?search=b-77`, { headers: { cookie } });
  const [engine] = (await answer.json()).engines;
  return [
    ['today', 'Today’s data', '/api/today'],
    ['engines', 'The list of engines', '/api/engines'],
    ['engines-by-recheck', 'The list by recheck', '/api/engines?sort=recheck'],
    ['search', 'A search of engines', '/api/engines?search=fan%20b-77'],
    ['engine', 'One engine', `/api/engines/${engine.id}`],
    ['build', 'One build', `/api/builds/${engine.buildId}`],
    ['readings', 'Its rounds with their readings', `/api/builds/${engine.buildId}/rounds`],
    ['sheets', 'The spec sheets', '/api/sheets'],
  ];
}

/** Each of several addresses against a route of the same server that only runs `select 1`. */
export async function reads({ base, viewer: { cookie } }) {
  const addresses = await addressesOf(base, cookie);
  await load(`${base}/api/bare`, {}, WARM_UP_SECONDS);
  for (const [, , path] of addresses) await load(`${base}${path}`, { cookie }, 1);
  return {
    turn: async () => {
      const turn = { bare: await load(`${base}/api/bare`, {}) };
      for (const [name, , path] of addresses) turn[name] = await load(`${base}${path}`, { cookie });
      return turn;
    },
    rows: addresses.map(([name, words]) => ({
      name,
      what: (middle) =>
        `${words}: ${middle((turn) => turn[name].perSecond).toFixed(0)} requests a second at ${CONNECTIONS} connections; a bare “select 1” ${middle((turn) => turn.bare.perSecond).toFixed(0)}`,
      figures: [
        {
          of: (turn) => turn[name].perSecond / turn.bare.perSecond,
          show: (share) => `${share.toFixed(2)} of it`,
          met: (share) => share >= LEAST_SHARE,
        },
        { of: (turn) => turn[name].p99, show: (figure) => `p99 ${ms(figure)}`, met: (p99) => p99 < MOST_P99 },
      ],
      aim: `at least ${LEAST_SHARE.toFixed(2)}, under ${MOST_P99} ms`,
    })),
  };
}
