import { buildWrite } from '@zero-lash/contract/builds';
import { newRan, ranOfBuild } from '@zero-lash/contract/ran';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../builds/addEntry.ts';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { readRan } from './read.ts';

/** Any engine runs somehow. */
const nothingStrange = () => null;

export function ranRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.post(
    '/builds/:id/ran',
    { schema: { params, body: newRan, response: { 201: buildWrite } }, preHandler: needs('bench') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addEntry(transaction, request.params.id, 'ran', request.body, contextOf(request), nothingStrange),
      ),
  );

  app.get('/engines/:id/ran', { schema: { params, response: { 200: z.array(ranOfBuild) } } }, (request) =>
    readRan(app.db, request.params.id),
  );
  done();
}
