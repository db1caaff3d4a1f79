import { newerRevision } from '@zero-lash/contract/builds';
import {
  movedReadings,
  newConditions,
  newReading,
  otherRound,
  pastReading,
} from '@zero-lash/contract/measuring';
import { id, line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addConditions } from './conditions.ts';
import { historyOf } from './history.ts';
import { goToRevision } from './revision.ts';
import { moveReadings, otherRounds } from './move.ts';
import { addReading } from './store.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function measuringRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /rounds/:id/conditions', {
    body: newConditions,
    work: (db, { id: round, body, context }) => addConditions(db, round, body, context),
  });

  buildWriteRoute(app, 'POST /rounds/:id/readings', {
    body: newReading,
    work: (db, { id: round, body, context }) => addReading(db, round, body, context),
  });

  app.get('/rounds/:id/others', { schema: { params, response: { 200: z.array(otherRound) } } }, (request) =>
    otherRounds(app.db, request.params.id),
  );

  buildWriteRoute(app, 'POST /rounds/:id/moved', {
    body: movedReadings,
    status: 200,
    work: (db, { id: round, body, context }) => moveReadings(db, round, body, context),
  });

  buildWriteRoute(app, 'POST /builds/:id/revision', {
    body: newerRevision,
    status: 200,
    work: (db, { id: build, body }) => goToRevision(db, build, body),
  });

  app.get(
    '/rounds/:id/points/:point',
    {
      schema: { params: params.extend({ point: line(12) }), response: { 200: z.array(pastReading) } },
    },
    (request) => historyOf(app.db, request.params.id, request.params.point),
  );
  done();
}
