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
  gapRow,
  newLastCheck,
  newUsage,
  pieceThere,
  usageStruck,
  usageStruckOut,
} from '@zero-lash/contract/engines';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { writeLastCheck } from './lastCheck.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { readPieces } from './pieces.ts';
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

  app.get(
    '/engines/:id/last-gaps',
    { schema: { params, response: { 200: z.array(gapRow) } } },
    (request, reply) => app.cache.answer(reply, () => read.readLastGaps(app.db, request.params.id)),
  );

  writeRoute(app, 'POST /engines', {
    changes: ['engines'],
    body: newEngine,
    answer: engineRow,
    work: (db, { body, context }) => store.addEngine(db, body, context.personId),
  });

  writeRoute(app, 'PATCH /engines/:id', {
    changes: ['engines'],
    body: engineChange,
    answer: engineRow,
    work: (db, { id: engine, body }) => store.changeEngine(db, engine, body),
  });

  writeRoute(app, 'POST /engines/:id/put-away', {
    changes: ['engines'],
    body: putAwayRequest,
    answer: engineRow,
    status: 200,
    work: (db, { id: engine, body, context }) => store.putAway(db, engine, body, context.personId),
  });

  writeRoute(app, 'POST /engines/:id/bring-back', {
    changes: ['engines'],
    body: bringBackRequest,
    answer: engineRow,
    status: 200,
    work: (db, { id: engine, body }) => store.bringBack(db, engine, body.version),
  });

  writeRoute(app, 'PUT /engines/:id/plan', {
    changes: ['engines'],
    body: newEnginePlan,
    answer: engineView,
    role: 'lead',
    work: async (db, { id: engine, body, context }) => {
      await plan.givePlan(db, engine, body, context);
      return read.viewEngine(db, engine);
    },
  });

  buildWriteRoute(app, 'POST /engines/:id/last-check', {
    body: newLastCheck,
    work: (db, { id: engine, body, context }) => writeLastCheck(db, engine, body, context),
  });

  writeRoute(app, 'POST /engines/:id/usages', {
    changes: ['usage'],
    body: newUsage,
    answer: engineRow,
    work: (db, { id: engine, body, context }) => store.logUsage(db, engine, body, context),
  });

  writeRoute(app, 'POST /engines/:id/usages/:usage/struck-out', {
    changes: ['usage'],
    params: params.extend({ usage: id }),
    body: usageStruck,
    answer: usageStruckOut,
    role: 'lead',
    status: 200,
    work: async (db, { id: engineId, params: { usage }, body: { why }, context }) => {
      const moved = await strikeFigure(db, { engineId, id: usage, why, by: context.personId });
      return { moved, engine: await read.findEngine(db, engineId) };
    },
  });
  done();
}
