import { buildWrite, type BuildWrite } from '@zero-lash/contract/builds';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Knex } from 'knex';
import { z } from 'zod';
import { needs } from '../plugins/signIn.ts';
import { writeBuild } from './write.ts';
import { contextOf, type WriteContext } from './writeContext.ts';

const BY_ID = z.object({ id });

/** What a write is given: what it is about, what was sent, and whom it comes from. */
interface Write<Body, Params> {
  /** of what its address names first: a build, a round, a recheck */
  readonly id: string;
  readonly params: Params;
  readonly body: Body;
  readonly context: WriteContext;
}

/** A route by which something is written in a build. */
interface WriteRoute<Body extends z.ZodType, Params extends z.ZodObject> {
  /** what is sent; left out where nothing is */
  readonly body?: Body;
  /** what its address names, where that is more than one thing */
  readonly params?: Params;
  /** who may: the bench, unless it says otherwise */
  readonly role?: 'bench' | 'lead';
  /** 201 for what is posted, 200 for what is put or patched, unless it says otherwise */
  readonly status?: 200 | 201;
  readonly work: (
    db: Knex.Transaction,
    write: Write<z.output<Body>, z.output<Params>>,
  ) => Promise<BuildWrite | readonly [BuildWrite, ...BuildWrite[]]>;
}

/**
 * Adds a route by which something is written in a build: in one transaction, once for each key, told to whoever looks at the build, and
 * answered with the rows that it brought.
 *
 * @param route its method and address, such as `POST /rounds/:id/readings`
 * @example writeRoute(app, 'POST /builds/:id/notes', { body: noteRequest, work: (db, { id, body, context }) => addNote(db, id, body, context) })
 */
export function writeRoute<
  Body extends z.ZodType = z.ZodUndefined,
  Params extends z.ZodObject = typeof BY_ID,
>(
  app: FastifyInstance,
  route: `${'POST' | 'PUT' | 'PATCH'} /${string}`,
  { body, params, role = 'bench', status, work }: WriteRoute<Body, Params>,
): void {
  const [method, url] = route.split(' ') as ['POST' | 'PUT' | 'PATCH', string];
  const answers = status ?? (method === 'POST' ? 201 : 200);
  app.route({
    method,
    url,
    schema: { params: params ?? BY_ID, ...(body ? { body } : {}), response: { [answers]: buildWrite } },
    preHandler: needs(role),
    handler: (request: FastifyRequest, reply: FastifyReply) =>
      writeBuild(request, reply, answers, (transaction) =>
        work(transaction, {
          id: (request.params as { readonly id: string }).id,
          params: request.params as z.output<Params>,
          body: request.body as z.output<Body>,
          context: contextOf(request),
        }),
      ),
  });
}
