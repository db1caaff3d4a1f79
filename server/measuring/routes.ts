import { buildWrite } from '@zero-lash/contract/builds';
import { newConditions, newReading, pastReading } from '@zero-lash/contract/measuring';
import { id, line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { addConditions } from './conditions.ts';
import { historyOf } from './history.ts';
import { addReading } from './store.ts';

export function measuringRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');
  const response = { 201: buildWrite };

  app.post(
    '/rounds/:id/conditions',
    { schema: { params, body: newConditions, response }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addConditions(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.post(
    '/rounds/:id/readings',
    { schema: { params, body: newReading, response }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addReading(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.get(
    '/rounds/:id/points/:point',
    {
      schema: { params: params.extend({ point: line(12) }), response: { 200: z.array(pastReading) } },
    },
    (request) => historyOf(app.db, request.params.id, request.params.point),
  );
  done();
}
