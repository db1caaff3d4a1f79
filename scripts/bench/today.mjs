import { randomUUID } from 'node:crypto';
import autocannon from 'autocannon';
import { ms } from './rows.mjs';

const CONNECTIONS = 20;
const SECONDS = 1;
const WARM_UP_SECONDS = 4;
/** How often the bare route is to be reached. */
const LEAST_SHARE = 0.35;
const MOST_P99 = 60;
/** How often something is written while lists are read. */
const WRITES_A_SECOND = 10;

async function load(url, headers, duration = SECONDS) {
  const result = await autocannon({ url, headers, connections: CONNECTIONS, duration });
  if (result.non2xx > 0 || result.errors > 0)
    throw new Error(`${url}: ${result.non2xx} refusals, ${result.errors} errors`);
  return { perSecond: result.requests.average, p99: result.latency.p99 };
}

/** What is read under load: Today, lists, a search, a month, the drawer, and one engine and one build of those that were added. */
export async function addressesOf(base, cookie) {
  const answer = await fetch(`${base}/api/engines?search=b-77`, { headers: { cookie } });
  const [engine] = (await answer.json()).engines;
  const [pattern] = await (await fetch(`${base}/api/fleet`, { headers: { cookie } })).json();
  const day = new Date().toISOString().slice(0, 10);
  const later = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);
  return [
    ['today', 'Today’s data', '/api/today'],
    ['engines', 'The list of engines', '/api/engines'],
    ['engines-by-recheck', 'The list by recheck', '/api/engines?sort=recheck'],
    ['search', 'A search of engines', '/api/engines?search=fan%20b-77'],
    ['engine', 'One engine', `/api/engines/${engine.id}`],
    ['build', 'One build', `/api/builds/${engine.buildId}`],
    ['readings', 'Its rounds with their readings', `/api/builds/${engine.buildId}/rounds`],
    ['sheets', 'The spec sheets', '/api/sheets'],
    ['rechecks', 'Rechecks, as a list', '/api/rechecks?limit=50'],
    ['rechecks-month', 'Rechecks, a month of them', `/api/rechecks?limit=500&from=${day}&to=${later}`],
    ['fleet', 'What our engines say', `/api/fleet/${pattern.sheetId}`],
    ['drawer', 'The drawer', '/api/drawer'],
  ];
}

/** Writes a reading ten times a second, at a build that is on the bench, until it is ended; each is answered before the next. */
async function writer(base, cookie) {
  const headers = { cookie, 'content-type': 'application/json' };
  const { engines } = await (await fetch(`${base}/api/engines?search=snow%20groomer`, { headers })).json();
  const read = async (path) =>
    (await fetch(`${base}/api/builds/${engines[0].buildId}${path}`, { headers })).json();
  const { rows: rounds } = await read('/rounds');
  let ended = false;
  let written = 0;
  const going = (async () => {
    while (!ended) {
      const next = new Promise((resolve) => setTimeout(resolve, 1000 / WRITES_A_SECOND));
      const go = 0.2 + (written % 10) / 100;
      const answer = await fetch(`${base}/api/rounds/${rounds[0].id}/readings`, {
        method: 'POST',
        headers: { ...headers, 'idempotency-key': randomUUID() },
        body: JSON.stringify({
          ...{ point: '1I', reading: { kind: 'bracket', go, noGo: go + 0.02 } },
          asTyped: `${go.toFixed(2)} ${(go + 0.02).toFixed(2)}`,
        }),
      });
      if (!answer.ok) throw new Error(`a reading: ${answer.status} ${await answer.text()}`);
      written += 1;
      await next;
    }
  })();
  return async () => {
    ended = true;
    await going;
  };
}

/** Each of several addresses against a route of the same server that only runs `select 1`. */
export async function reads({ base, viewer: { cookie }, bench }) {
  const addresses = await addressesOf(base, cookie);
  await load(`${base}/api/bare`, {}, WARM_UP_SECONDS);
  for (const [, , path] of addresses) await load(`${base}${path}`, { cookie }, 1);
  const all = async () => {
    const turn = { bare: await load(`${base}/api/bare`, {}) };
    for (const [name, , path] of addresses) turn[name] = await load(`${base}${path}`, { cookie });
    return turn;
  };
  const kinds = [
    ['', '', (turn) => turn.still],
    ['-written', ', while a reading is written ten times a second', (turn) => turn.written],
  ];
  return {
    turn: async () => {
      const still = await all();
      const end = await writer(base, bench.cookie);
      return { still, written: await all().finally(end) };
    },
    rows: kinds.flatMap(([suffix, meanwhile, of]) =>
      addresses.map(([name, words]) => ({
        name: `${name}${suffix}`,
        what: (middle) =>
          `${words}${meanwhile}: ${middle((turn) => of(turn)[name].perSecond).toFixed(0)} requests a second at ${CONNECTIONS} connections; a bare “select 1” ${middle((turn) => of(turn).bare.perSecond).toFixed(0)}`,
        figures: [
          {
            of: (turn) => of(turn)[name].perSecond / of(turn).bare.perSecond,
            show: (share) => `${share.toFixed(2)} of it`,
            met: (share) => share >= LEAST_SHARE,
          },
          {
            of: (turn) => of(turn)[name].p99,
            show: (figure) => `p99 ${ms(figure)}`,
            met: (p99) => p99 < MOST_P99,
          },
        ],
        aim: `at least ${LEAST_SHARE.toFixed(2)}, under ${MOST_P99} ms`,
      })),
    ),
  };
}
