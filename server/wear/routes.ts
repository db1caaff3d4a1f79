import { buildWrite } from '@zero-lash/contract/builds';
import { newWear, wearOfBuild } from '@zero-lash/contract/wear';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../builds/addEntry.ts';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { complainOfWear } from './complain.ts';
import { readWearOfEngine } from './store.ts';

export function wearRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.post(
    '/builds/:id/wear',
    { schema: { params, body: newWear, response: { 201: buildWrite } }, preHandler: needs('bench') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addEntry(transaction, request.params.id, 'wear', request.body, contextOf(request), complainOfWear),
      ),
  );

  app.get(
    '/engines/:id/wear',
    { schema: { params, response: { 200: z.array(wearOfBuild) } } },
    (request, reply) => app.cache.answer(reply, () => readWearOfEngine(app.db, request.params.id)),
  );
  done();
}
