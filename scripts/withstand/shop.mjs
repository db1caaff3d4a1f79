import { randomUUID } from 'node:crypto';

/** The demo shop's people who do things here. */
export const LEAD = ['Ilse Marrand', 'brass-and-feeler'];
export const BENCH = ['Tobin Hask', 'two-full-turns'];

/** Signs somebody in; gives a way to call as them that never throws: what is not reached has the status 0. */
export async function signIn(base, [name, passphrase]) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, passphrase }),
  });
  const cookie = answer.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
  return caller(base, cookie);
}

/** A way to call a server with a cookie. */
export function caller(base, cookie) {
  const call = async (method, path, body, key = randomUUID()) => {
    try {
      const answer = await fetch(`${base}/api/${path}`, {
        method,
        headers: {
          cookie,
          'idempotency-key': key,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        signal: AbortSignal.timeout(20_000),
        ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      const text = await answer.text();
      return {
        status: answer.status,
        body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text,
      };
    } catch {
      return { status: 0, body: null };
    }
  };
  return Object.assign(call, { cookie });
}

/** The open build of the engine whose name begins so. */
export async function buildOf(call, name) {
  const { body } = await call('GET', `engines?search=${encodeURIComponent(name)}`);
  const engine = body.engines.find((each) => each.name.startsWith(name));
  const read = async (path) => (await call('GET', path)).body;
  const { seq, rows: head } = await read(`builds/${engine.buildId}`);
  const rounds = await read(`builds/${engine.buildId}/rounds`);
  const rechecks = await read(`builds/${engine.buildId}/rechecks`);
  const sheet = await read(`sheet-revisions/${head.revisionId}`);
  return { ...head, seq, sheet, rounds: rounds.rows, rechecks: rechecks.rows };
}

/** The same row of random numbers at every run. */
export function seeded(seed) {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

/** How many of each there are. */
export function countBy(list) {
  const counts = {};
  for (const each of list) counts[each] = (counts[each] ?? 0) + 1;
  return counts;
}

/** The class of a status: `2xx`, `4xx`, `5xx`; a 503 by itself, which says that it may be tried again. */
export const classOf = (status) =>
  status === 503 ? '503' : status === 0 ? 'unreached' : `${Math.floor(status / 100)}xx`;
