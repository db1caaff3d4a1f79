import {
  bringBackRequest,
  putAwayRequest,
  engineChange,
  engineList,
  engineRow,
  engineSearch,
  engineView,
  newEngine,
  newEnginePlan,
  newUsage,
  pieceThere,
  usageStruck,
  usageStruckOut,
} from '@zero-lash/contract/engines';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { readPieces } from './pieces.ts';
import { contextOf } from '../builds/writeContext.ts';
import * as plan from './plan.ts';
import * as read from './read.ts';
import * as store from './store.ts';
import { strikeFigure } from '../usage/log.ts';

export function engineRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.get(
    '/engines',
    { schema: { querystring: engineSearch, response: { 200: engineList } } },
    (request, reply) => app.cache.answer(reply, () => read.listEngines(app.db, request.query)),
  );

  app.get('/engines/:id', { schema: { params, response: { 200: engineView } } }, (request, reply) =>
    app.cache.answer(reply, () => read.viewEngine(app.db, request.params.id)),
  );

  app.get('/engines/:id/pieces', { schema: { params, response: { 200: z.array(pieceThere) } } }, (request) =>
    readPieces(app.db, request.params.id),
  );

  app.post(
    '/engines',
    { schema: { body: newEngine, response: { 201: engineRow } }, preHandler: needs('bench') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 201, (transaction) =>
        store.addEngine(transaction, request.body, personOf(request).id),
      ),
  );

  app.patch(
    '/engines/:id',
    { schema: { params, body: engineChange, response: { 200: engineRow } }, preHandler: needs('bench') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.changeEngine(transaction, request.params.id, request.body),
      ),
  );

  app.post(
    '/engines/:id/put-away',
    { schema: { params, body: putAwayRequest, response: { 200: engineRow } }, preHandler: needs('bench') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.putAway(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post(
    '/engines/:id/bring-back',
    { schema: { params, body: bringBackRequest, response: { 200: engineRow } }, preHandler: needs('bench') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.bringBack(transaction, request.params.id, request.body.version),
      ),
  );

  app.put(
    '/engines/:id/plan',
    { schema: { params, body: newEnginePlan, response: { 200: engineView } }, preHandler: needs('lead') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, async (transaction) => {
        await plan.givePlan(transaction, request.params.id, request.body, contextOf(request));
        return read.viewEngine(transaction, request.params.id);
      }),
  );

  app.post(
    '/engines/:id/usages',
    { schema: { params, body: newUsage, response: { 201: engineRow } }, preHandler: needs('bench') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 201, (transaction) =>
        store.logUsage(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.post(
    '/engines/:id/usages/:usage/struck-out',
    {
      schema: { params: params.extend({ usage: id }), body: usageStruck, response: { 200: usageStruckOut } },
      preHandler: needs('lead'),
    },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, async (transaction) => {
        const { id: engineId, usage } = request.params;
        const figure = { engineId, id: usage, why: request.body.why, by: personOf(request).id };
        const moved = await strikeFigure(transaction, figure);
        return { moved, engine: await read.findEngine(transaction, engineId) };
      }),
  );
  done();
}
