import { newWear, wearOfBuild } from '@zero-lash/contract/wear';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../entries/addEntry.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { complainOfWear } from './complain.ts';
import { readWearOfEngine } from './store.ts';

export function wearRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /builds/:id/wear', {
    body: newWear,
    work: (db, { id: build, body, context }) => addEntry(db, build, 'wear', body, context, complainOfWear),
  });

  app.get(
    '/engines/:id/wear',
    { schema: { params, response: { 200: z.array(wearOfBuild) } } },
    (request, reply) => app.cache.answer(reply, () => readWearOfEngine(app.db, request.params.id)),
  );
  done();
}
