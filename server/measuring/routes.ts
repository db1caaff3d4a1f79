import { newReading, roundConditions } from '@zero-lash/contract/measuring';
import { id, line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { changedBuild } from '../builds/store.ts';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeAndTell } from '../plugins/writes.ts';
import { setConditions } from './conditions.ts';
import { historyOf } from './history.ts';
import { addReading, clockAhead } from './store.ts';

export function measuringRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.put(
    '/rounds/:id/conditions',
    { schema: { params, body: roundConditions }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        setConditions(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post('/rounds/:id/readings', { schema: { params, body: newReading }, preHandler }, (request, reply) =>
    writeAndTell(app.db, request, reply, changedBuild, 201, (transaction) =>
      addReading(transaction, request.params.id, request.body, {
        personId: personOf(request).id,
        clockAhead: clockAhead(request.headers['device-clock']),
      }),
    ),
  );

  app.get(
    '/rounds/:id/points/:point',
    { schema: { params: params.extend({ point: line(12) }) } },
    (request) => historyOf(app.db, request.params.id, request.params.point),
  );
  done();
}
