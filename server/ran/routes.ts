import { newRan, ranOfBuild } from '@zero-lash/contract/ran';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../entries/addEntry.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { readRan } from './read.ts';

/** Any engine runs somehow. */
const nothingStrange = () => null;

export function ranRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /builds/:id/ran', {
    body: newRan,
    work: (db, { id: build, body, context }) => addEntry(db, build, 'ran', body, context, nothingStrange),
  });

  app.get('/engines/:id/ran', { schema: { params, response: { 200: z.array(ranOfBuild) } } }, (request) =>
    readRan(app.db, request.params.id),
  );
  done();
}
