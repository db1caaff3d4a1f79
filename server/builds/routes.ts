import {
  buildChange,
  newBuild,
  noteRequest,
  stageMoveRequest,
  tickRequest,
} from '@zero-lash/contract/builds';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import * as store from './store.ts';
import { viewBuild } from './view.ts';
import { writeBuild } from './write.ts';

export function buildRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.get('/builds/:id', { schema: { params } }, (request) => viewBuild(app.db, request.params.id));

  app.post('/engines/:id/builds', { schema: { params, body: newBuild }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 201, (transaction) =>
      store.openBuild(transaction, request.params.id, request.body, personOf(request).id),
    ),
  );

  app.patch('/builds/:id', { schema: { params, body: buildChange }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 200, (transaction) =>
      store.changeBuild(transaction, request.params.id, request.body),
    ),
  );

  app.post(
    '/builds/:id/stage',
    { schema: { params, body: stageMoveRequest }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        store.moveStage(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post('/builds/:id/ticks', { schema: { params, body: tickRequest }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 200, (transaction) =>
      store.tick(transaction, request.params.id, request.body, personOf(request).id),
    ),
  );

  app.post('/builds/:id/notes', { schema: { params, body: noteRequest }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 201, (transaction) =>
      store.addNote(transaction, request.params.id, request.body, personOf(request).id),
    ),
  );

  done();
}
