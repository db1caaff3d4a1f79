import { createHash } from 'node:crypto';
import type { LiveEvent } from '@zero-lash/contract/instruments';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Knex } from 'knex';
import { announce } from '../live/bus.ts';
import { Refusal } from './errors.ts';

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/**
 * Does a write once: in one transaction, under the client's own key. A retry with the same key waits for the first to
 * finish and gets its answer again; the same key with another body is refused.
 *
 * @param work gets the transaction and returns what to answer; anything it throws rolls everything back
 * @throws Refusal `key_missing` or `key_reused`
 */
export async function writeOnce<Answer>(
  db: Knex,
  request: FastifyRequest,
  reply: FastifyReply,
  status: number,
  work: (transaction: Knex.Transaction) => Promise<Answer>,
): Promise<Answer> {
  const key = request.headers['idempotency-key'];
  if (typeof key !== 'string' || !UUID.test(key)) throw new Refusal('key_missing');
  const route = `${request.method} ${request.url}`;
  const fingerprint = createHash('sha256')
    .update(`${request.person?.id ?? ''} ${route} ${JSON.stringify(request.body ?? null)}`)
    .digest('hex');
  const answer = await db.transaction(async (transaction) => {
    const claimed = await transaction('writes')
      .insert({
        key,
        person_id: request.person?.id ?? null,
        route,
        fingerprint,
        status,
        answer: null,
      })
      .onConflict('key')
      .ignore()
      .returning('key');
    if (claimed.length === 0) {
      const earlier = await transaction('writes').where({ key }).first();
      if (!earlier || earlier.fingerprint !== fingerprint) throw new Refusal('key_reused');
      return earlier.answer as Answer;
    }
    const fresh = await work(transaction);
    await transaction('writes')
      .where({ key })
      .update({ answer: JSON.stringify(fresh ?? null) });
    return fresh;
  });
  void reply.code(status);
  return answer;
}

/**
 * Does a write once and tells every browser that looks at what it changed, when it is committed.
 *
 * @param eventOf what they are told, from the write's own answer
 */
export async function writeAndTell<Answer>(
  db: Knex,
  request: FastifyRequest,
  reply: FastifyReply,
  eventOf: (transaction: Knex, answer: Answer) => LiveEvent | Promise<LiveEvent>,
  status: number,
  work: (transaction: Knex.Transaction) => Promise<Answer>,
): Promise<Answer> {
  return writeOnce(db, request, reply, status, async (transaction) => {
    const answer = await work(transaction);
    await announce(transaction, await eventOf(transaction, answer));
    return answer;
  });
}
