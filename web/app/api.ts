import {
  createApi,
  fetchBaseQuery,
  retry,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { ProblemBody } from '@zero-lash/contract/problems';
import { v4 as makeKey } from 'uuid';
import { serverReached } from './outbox.ts';
import { askedBy, cameIn, clearAnswers, cacheAnswer, cachedAnswer } from './answerCache.ts';

const plain = fetchBaseQuery({ baseUrl: '/api', timeout: 20_000 });

const ATTEMPTS = 4;

/**
 * Sends a request; a lost answer is asked for again with the same key, which the server writes once. A refusal is
 * final at once: asking again would change nothing. Where the server is not reached, a page seen before opens with the
 * last answer this device kept.
 */
const patient = retry(
  async (args: string | FetchArgs, api, extra) => {
    const reading = readAt(args);
    let by = askedBy();
    let result = await plain(args, api, extra);
    const isUnsigned = () => result.error?.status === 401;
    // whoever was signed out elsewhere leaves nothing here that would open without the server
    if (reading === 'session' && isUnsigned() && by === askedBy()) {
      const forgotten = clearAnswers();
      by = askedBy();
      await forgotten;
    }
    // somebody signed in while this was on its way: a refusal of before is none of theirs
    if (reading !== null && isUnsigned() && by !== askedBy()) {
      by = askedBy();
      result = await plain(args, api, extra);
    }
    if (isSignIn(args) && result.data !== undefined) cameIn();
    const unreached = result.error?.status === 'FETCH_ERROR' || result.error?.status === 'TIMEOUT_ERROR';
    if (reading !== null || unreached) api.dispatch(serverReached(!unreached));
    if (result.error && typeof result.error.status === 'number' && result.error.status < 500)
      retry.fail(result.error, result.meta);
    if (reading === null) return result;
    if (result.data !== undefined) void cacheAnswer(reading, result.data, by);
    const kept = unreached ? await cachedAnswer(reading) : undefined;
    return kept === undefined ? result : { data: kept };
  },
  { maxRetries: ATTEMPTS - 1 },
);

const isSignIn = (args: string | FetchArgs) =>
  typeof args !== 'string' && args.method === 'POST' && args.url === 'session';

/** The path of what is only read, with what it is narrowed by in one order; null of a write. */
function readAt(args: string | FetchArgs): string | null {
  if (typeof args === 'string') return args;
  if (args.method && args.method !== 'GET') return null;
  const given = Object.entries((args.params ?? {}) as Record<string, unknown>)
    .filter(([, value]) => value !== undefined && value !== '')
    .map(([name, value]) => [name, String(value)])
    .sort();
  return given.length === 0 ? args.url : `${args.url}?${new URLSearchParams(given as string[][]).toString()}`;
}

const TAGS = [
  'Session',
  'Today',
  'Engine',
  'Engines',
  'Build',
  'Sheet',
  'People',
  'Tools',
  'Gauges',
  'Drawer',
  'Rechecks',
  'Feeds',
  'Mailbox',
  'Owners',
  'Usage',
] as const;
/** What an answer is of, so that it is asked for again once that has changed. */
export type Tag = (typeof TAGS)[number];

/** The one door to the server; each resource adds its endpoints in its own folder. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: patient,
  tagTypes: TAGS,
  refetchOnReconnect: true,
  endpoints: () => ({}),
});

/** How many of this page's own writes are known again when they are told of. */
const OWN_WRITES = 100;
const ownWrites = new Set<string>();

/** Remembers the key of a write that this page sends. */
export function sentHere(key: string): void {
  ownWrites.add(key);
  const [oldest] = ownWrites;
  if (ownWrites.size > OWN_WRITES) ownWrites.delete(oldest!);
}

/** Whether a write that is told of was sent by this page, which asked again for what it changed when it was answered. */
export const isOwnWrite = (key: string | null) => key !== null && ownWrites.has(key);

/** Makes a write request with a key of its own, so that however often it is sent it is written once. */
export function write(method: 'POST' | 'PATCH' | 'PUT' | 'DELETE', url: string, body?: unknown) {
  const key = makeKey();
  sentHere(key);
  return { url, method, body: body ?? {}, headers: { 'idempotency-key': key } };
}

const UNREACHED: ProblemBody = {
  type: 'about:blank',
  title: 'The server cannot be reached.',
  status: 0,
  code: 'unreached',
  detail: 'The server cannot be reached. What you typed is still here; try again when it is back.',
};

/** Turns whatever a request failed with into a problem a person can act on; null where nothing failed. */
export function problemFrom(error: unknown): ProblemBody | null {
  if (!error) return null;
  const { data } = error as FetchBaseQueryError & { data?: unknown };
  if (data && typeof data === 'object' && 'code' in data && 'detail' in data) return data as ProblemBody;
  return UNREACHED;
}
