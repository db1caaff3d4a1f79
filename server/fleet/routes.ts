import { fleetList, fleetSays } from '@zero-lash/contract/fleet';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { listFleet, readFleet } from './read.ts';

export function fleetRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/fleet', { schema: { response: { 200: fleetList } } }, (_request, reply) =>
    app.cache.answer(reply, () => listFleet(app.db)),
  );

  app.get(
    '/fleet/:id',
    { schema: { params: z.object({ id }), response: { 200: fleetSays } } },
    (request, reply) => app.cache.answer(reply, () => readFleet(app.db, request.params.id)),
  );
  done();
}
