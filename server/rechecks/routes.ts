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
import { readTrend } from './forecast.ts';
import { listRechecks, readFilters } from './list.ts';
import { leaveLate } from './late.ts';
import * as store from './store.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function recheckRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /rechecks/:id/round', {
    body: recheckOpening,
    work: (db, { id: recheck, body, context }) => store.openRecheckRound(db, recheck, body.takenAt, context),
  });

  buildWriteRoute(app, 'POST /rechecks/:id/move', {
    body: recheckMove,
    role: 'lead',
    work: (db, { id: recheck, body, context }) => store.moveRecheck(db, recheck, body, context),
  });

  buildWriteRoute(app, 'POST /rechecks/:id/bench-day', {
    body: benchDay,
    work: (db, { id: recheck, body, context }) => store.planBenchDay(db, recheck, body, context),
  });

  buildWriteRoute(app, 'POST /rechecks/:id/late-left', {
    body: lateLeft,
    role: 'lead',
    work: (db, { id: recheck, body, context }) => leaveLate(db, recheck, body, context),
  });

  app.get(
    '/rechecks',
    { schema: { querystring: recheckSearch, response: { 200: recheckList } } },
    (request, reply) => app.cache.answer(reply, () => listRechecks(app.db, request.query)),
  );

  app.get(
    '/engines/:id/trend',
    { schema: { params, response: { 200: engineTrend.nullable() } } },
    (request, reply) => app.cache.answer(reply, () => readTrend(app.db, request.params.id)),
  );

  app.get('/rechecks/filters', { schema: { response: { 200: recheckFilters } } }, (_request, reply) =>
    app.cache.answer(reply, () => readFilters(app.db)),
  );

  buildWriteRoute(app, 'POST /rechecks/:id/outcome', {
    work: (db, { id: recheck, context }) => store.closeRecheck(db, recheck, context.personId),
  });
  done();
}
