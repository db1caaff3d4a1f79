import type { Topic } from '@zero-lash/contract/live';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance, FastifyReply, FastifyRequest, RouteOptions } from 'fastify';
import type { Knex } from 'knex';
import { z } from 'zod';
import { announceChange } from './bus.ts';
import { needs } from './signIn.ts';
import { contextOf, type WriteContext } from './writeContext.ts';
import { writeKey, writeOnce, type Kept } from './writes.ts';

const BY_ID = z.object({ id });

/** What is sent to a route. */
interface Sent<Body, Params> {
  /** the `id` in its address, where it has one */
  readonly id: string;
  readonly params: Params;
  readonly body: Body;
}

/** What a write is given: what was sent, whom it comes from, and what was made ready for it. */
interface Write<Body, Params, Ready> extends Sent<Body, Params> {
  readonly context: WriteContext;
  readonly ready: Ready;
}

/** The method and address of a route by which something is written, such as `PATCH /engines/:id`. */
export type WriteAddress = `${'POST' | 'PUT' | 'PATCH' | 'DELETE'} /${string}`;

/** What a route takes and who may use it. */
export interface WriteTerms<Body extends z.ZodType, Params extends z.ZodObject, Ready> {
  /** what is sent; left out where nothing is */
  readonly body?: Body;
  /** what its address names, where that is not one `id` */
  readonly params?: Params;
  /** who may at least: the bench, unless it says otherwise; a viewer is anybody who is signed in */
  readonly role?: 'viewer' | 'bench' | 'lead';
  /** 201 for what is posted, 200 for the rest, unless it says otherwise */
  readonly status?: 200 | 201;
  /** bytes of the body, where it may be larger than others */
  readonly bodyLimit?: number;
  /** what takes long, done before the transaction is begun, so that nobody waits for it */
  readonly makeReady?: (sent: Sent<z.output<Body>, z.output<Params>>) => Promise<Ready>;
}

/** A route by which something is written. */
export interface WriteRoute<
  Answer extends z.ZodType,
  Body extends z.ZodType,
  Params extends z.ZodObject,
  Ready,
> extends WriteTerms<Body, Params, Ready> {
  readonly answer: Answer;
  /** what it changes that others may have before them: every browser is told when it is committed; empty where nobody else sees it */
  readonly changes: readonly Topic[] | ((answer: z.output<Answer>) => readonly Topic[]);
  /** what is kept of the answer for a retry; the answer itself where it is left out */
  readonly kept?: Kept<z.output<Answer>>;
  readonly work: (
    db: Knex.Transaction,
    write: Write<z.output<Body>, z.output<Params>, Ready>,
  ) => Promise<z.output<Answer>>;
}

/**
 * Adds a route by which something is written: in one transaction, once for each key, for whom it is open to.
 *
 * @example writeRoute(app, 'PATCH /owners/:id', { answer: owner, body: ownerChange, changes: ['owners'], work: (db, { id, body }) => changeOwner(db, id, body) })
 */
export function writeRoute<
  Answer extends z.ZodType,
  Body extends z.ZodType = z.ZodUndefined,
  Params extends z.ZodObject = typeof BY_ID,
  Ready = undefined,
>(
  app: FastifyInstance,
  route: WriteAddress,
  {
    answer,
    body,
    params,
    role = 'bench',
    status,
    bodyLimit,
    changes,
    kept,
    makeReady,
    work,
  }: WriteRoute<Answer, Body, Params, Ready>,
): void {
  const [method, url] = route.split(' ') as ['POST' | 'PUT' | 'PATCH' | 'DELETE', string];
  const answers = status ?? (method === 'POST' ? 201 : 200);
  const options: RouteOptions = {
    method,
    url,
    ...(bodyLimit === undefined ? {} : { bodyLimit }),
    schema: {
      ...(url.includes(':') ? { params: params ?? BY_ID } : {}),
      ...(body ? { body } : {}),
      response: { [answers]: answer },
    },
    ...(role === 'viewer' ? {} : { preHandler: needs(role) }),
    handler: async (request: FastifyRequest, reply: FastifyReply) => {
      const sent = {
        id: (request.params as { readonly id: string }).id,
        params: request.params as z.output<Params>,
        body: request.body as z.output<Body>,
      };
      const ready = (await makeReady?.(sent)) as Ready;
      return writeOnce(
        app.db,
        request,
        reply,
        answers,
        async (transaction) => {
          const done = await work(transaction, { ...sent, ready, context: contextOf(request) });
          await announceChange(
            transaction,
            typeof changes === 'function' ? changes(done) : changes,
            writeKey(request),
          );
          return done;
        },
        kept,
      );
    },
  };
  app.route(options);
}
