import type { FastifyReply, FastifyRequest, preValidationHookHandler } from 'fastify';
import type { Knex } from 'knex';
import { keyed } from '../keyed.ts';
import { passphraseMark } from './passphrase.ts';
import { Refusal } from './errors.ts';
import { keepTimeQuestion } from './timeQuestion.ts';

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
const IS_PASSPHRASE = /passphrase$/i;
const READS = new Set(['GET', 'HEAD']);

/** How often a write that met another in the wrong order is begun again before it is refused. */
const ATTEMPTS = 3;
const DEADLOCK = '40P01';

/** What a retry's answer is made from, where the answer itself is not kept. */
export interface Kept<Answer> {
  readonly of: (answer: Answer) => unknown;
  readonly again: (db: Knex, kept: never, key: string) => Promise<Answer>;
}

declare module 'fastify' {
  interface FastifyContextConfig {
    /** writes nothing that could be written twice, so that it needs no idempotency key */
    keyless?: boolean;
  }
}

/** Refuses a write that comes without a key of its own, before anything else is done with it. */
export const needsKey: preValidationHookHandler = (request, _reply, done) => {
  const free = READS.has(request.method) || request.routeOptions.config.keyless;
  done(free || keyOf(request) ? undefined : new Refusal('key_missing'));
};

/** The key a write came with: what it brings gets it as its own id. */
export function writeKey(request: FastifyRequest): string {
  const key = keyOf(request);
  if (!key) throw new Refusal('key_missing');
  return key;
}

function keyOf(request: FastifyRequest): string | null {
  const key = request.headers['idempotency-key'];
  return typeof key === 'string' && UUID.test(key) ? key : null;
}

/**
 * What tells one write from another under the same key, and cannot be guessed from outside. Of a passphrase it holds a mark that is
 * as dear to guess from as the hash it is kept by.
 */
async function fingerprintOf(request: FastifyRequest, key: string, route: string): Promise<string> {
  const { secret } = request.server;
  const body = await marked(request.body ?? null, keyed(secret, 'passphrase', key));
  return keyed(secret, 'write', `${request.person?.id ?? ''} ${route} ${JSON.stringify(body)}`);
}

/** A body with the marks of its passphrases in their places; they stand at its top. */
async function marked(body: unknown, salt: string): Promise<unknown> {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) return body;
  const marks = await Promise.all(
    Object.entries(body)
      .filter((each): each is [string, string] => IS_PASSPHRASE.test(each[0]) && typeof each[1] === 'string')
      .map(async ([name, value]) => [name, await passphraseMark(value, salt)]),
  );
  return { ...body, ...Object.fromEntries(marks) };
}

/**
 * Does a write once: in one transaction, under the client's own key. A retry with the same key waits for the first to
 * finish and gets its answer again; the same key with another body is refused.
 *
 * @param work gets the transaction and returns what to answer; anything it throws rolls everything back
 * @param kept what is kept of the answer for a retry; the answer itself where it is left out
 * @throws Refusal `key_missing` or `key_reused`
 */
export async function writeOnce<Answer>(
  db: Knex,
  request: FastifyRequest,
  reply: FastifyReply,
  status: number,
  work: (transaction: Knex.Transaction) => Promise<Answer>,
  kept?: Kept<Answer>,
): Promise<Answer> {
  const key = writeKey(request);
  const route = `${request.method} ${request.url}`;
  const fingerprint = await fingerprintOf(request, key, route);
  const once = async (transaction: Knex.Transaction) => {
    const claimed = await transaction('writes')
      .insert({ key, person_id: request.person?.id ?? null, route, fingerprint, status, answer: null })
      .onConflict('key')
      .ignore()
      .returning('key');
    if (claimed.length === 0) {
      const earlier = await transaction('writes').where({ key }).first();
      if (!earlier || earlier.fingerprint !== fingerprint) throw new Refusal('key_reused');
      return kept ? kept.again(transaction, earlier.answer as never, key) : (earlier.answer as Answer);
    }
    const fresh = await work(transaction);
    const answer = kept ? kept.of(fresh) : fresh;
    await transaction('writes')
      .where({ key })
      .update({ answer: JSON.stringify(answer ?? null) });
    return fresh;
  };
  let answer: Answer;
  try {
    answer = await request.server.writeSlots(() => untilNoDeadlock(() => db.transaction(once)));
  } catch (error) {
    if (error instanceof Refusal && error.code === 'taken_when') await keepAsked(db, request, key);
    throw error;
  }
  void reply.code(status);
  return answer;
}

/** Keeps that the device of a write is asked about it: what was refused wrote nothing itself. */
async function keepAsked(db: Knex, request: FastifyRequest, key: string): Promise<void> {
  const { id: subject } = request.params as { readonly id?: string };
  const { url: route = '' } = request.routeOptions;
  if (!subject || !request.person) return;
  await keepTimeQuestion(db, { key, personId: request.person.id, route, subject, body: request.body });
}

/** Whether a write with the key of a request was done already, and is only asked for again. */
export async function wasWritten(db: Knex, request: FastifyRequest): Promise<boolean> {
  const found = await db('writes')
    .where({ key: writeKey(request), person_id: request.person?.id ?? null })
    .first('key');
  return found !== undefined;
}

/** Begins again what the database ended because two waited for each other: nothing of it was written. */
async function untilNoDeadlock<Answer>(work: () => Promise<Answer>): Promise<Answer> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await work();
    } catch (error) {
      if ((error as { code?: string }).code !== DEADLOCK || attempt === ATTEMPTS) throw error;
    }
  }
}
