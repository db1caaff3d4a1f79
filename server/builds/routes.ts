import {
  abandonRequest,
  restoreRequest,
  BUILD_ROOMS,
  buildChange,
  buildWrite,
  newBuild,
  noteRequest,
  stageMoveRequest,
  tickRequest,
  type BuildParts,
} from '@zero-lash/contract/builds';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { contextOf } from './writeContext.ts';
import { addNote, tick } from './notes.ts';
import { asOf, readHead } from './read.ts';
import { ROOMS } from './rooms.ts';
import { abandonBuild, restoreBuild } from './abandon.ts';
import * as store from './store.ts';
import { writeBuild } from './write.ts';

export function buildRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');
  const answers = { 200: buildWrite };
  const brings = { 201: buildWrite };

  app.get('/builds/:id', { schema: { params, response: { 200: BUILD_ROOMS.head } } }, (request, reply) =>
    app.cache.answer(reply, () => readHead(app.db, request.params.id)),
  );

  for (const [room, { read }] of Object.entries(ROOMS) as [
    keyof BuildParts,
    (typeof ROOMS)[keyof BuildParts],
  ][])
    app.get(
      `/builds/:id/${room}`,
      { schema: { params, response: { 200: BUILD_ROOMS[room] } } },
      (request, reply) => app.cache.answer(reply, () => asOf<unknown>(app.db, request.params.id, read)),
    );

  app.post(
    '/engines/:id/builds',
    { schema: { params, body: newBuild, response: brings }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        store.openBuild(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.patch(
    '/builds/:id',
    { schema: { params, body: buildChange, response: answers }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        store.changeBuild(transaction, request.params.id, request.body, personOf(request)),
      ),
  );

  app.post(
    '/builds/:id/stage',
    { schema: { params, body: stageMoveRequest, response: answers }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        store.moveStage(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post(
    '/builds/:id/abandon',
    { schema: { params, body: abandonRequest, response: answers }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        abandonBuild(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post(
    '/builds/:id/restore',
    { schema: { params, body: restoreRequest, response: answers }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        restoreBuild(transaction, request.params.id, request.body.version),
      ),
  );

  app.post(
    '/builds/:id/ticks',
    { schema: { params, body: tickRequest, response: answers }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        tick(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.post(
    '/builds/:id/notes',
    { schema: { params, body: noteRequest, response: brings }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addNote(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  done();
}
