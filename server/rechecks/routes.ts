import { buildWrite } from '@zero-lash/contract/builds';
import {
  benchDay,
  engineTrend,
  lateLeft,
  recheckFilters,
  recheckList,
  recheckMove,
  recheckOpening,
  recheckSearch,
} from '@zero-lash/contract/rechecks';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { readTrend } from './forecast.ts';
import { listRechecks, readFilters } from './list.ts';
import { leaveLate } from '../signoff/late.ts';
import * as store from './store.ts';

export function recheckRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const response = { 201: buildWrite };
  const preHandler = needs('bench');

  app.post(
    '/rechecks/:id/round',
    { schema: { params, body: recheckOpening, response }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        store.openRecheckRound(transaction, request.params.id, request.body.takenAt, contextOf(request)),
      ),
  );

  app.post(
    '/rechecks/:id/move',
    { schema: { params, body: recheckMove, response }, preHandler: needs('lead') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        store.moveRecheck(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.post(
    '/rechecks/:id/bench-day',
    { schema: { params, body: benchDay, response }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        store.planBenchDay(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.post(
    '/rechecks/:id/late-left',
    { schema: { params, body: lateLeft, response }, preHandler: needs('lead') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        leaveLate(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.get(
    '/rechecks',
    { schema: { querystring: recheckSearch, response: { 200: recheckList } } },
    (request) => listRechecks(app.db, request.query),
  );

  app.get(
    '/engines/:id/trend',
    { schema: { params, response: { 200: engineTrend.nullable() } } },
    async (request, reply) =>
      reply.type('application/json; charset=utf-8').send(await readTrend(app.db, request.params.id)),
  );

  app.get('/rechecks/filters', { schema: { response: { 200: recheckFilters } } }, () => readFilters(app.db));

  app.post('/rechecks/:id/outcome', { schema: { params, response }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 201, (transaction) =>
      store.closeRecheck(transaction, request.params.id, personOf(request).id),
    ),
  );
  done();
}
