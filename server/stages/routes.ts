import {
  abandonRequest,
  restoreRequest,
  BUILD_ROOMS,
  buildChange,
  largerJob,
  newBuild,
  noteRequest,
  setColdRequest,
  stageMoveRequest,
  tickRequest,
  type BuildParts,
} from '@zero-lash/contract/builds';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addNote, tick } from './notes.ts';
import { asOf, readHead } from '../builds/read.ts';
import { buildRooms, type RoomDefinitions } from '../builds/registry.ts';
import { abandonBuild, restoreBuild } from './abandon.ts';
import { changeBuild, enlargeJob } from './change.ts';
import { moveStage } from './move.ts';
import { openBuild } from './open.ts';
import { setColdInstead } from './setCold.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function stageRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.get('/builds/:id', { schema: { params, response: { 200: BUILD_ROOMS.head } } }, (request, reply) =>
    app.cache.answer(reply, () => readHead(app.db, request.params.id)),
  );

  for (const [room, { read }] of Object.entries(buildRooms()) as [
    keyof BuildParts,
    RoomDefinitions[keyof BuildParts],
  ][])
    app.get(
      `/builds/:id/${room}`,
      { schema: { params, response: { 200: BUILD_ROOMS[room] } } },
      (request, reply) => app.cache.answer(reply, () => asOf<unknown>(app.db, request.params.id, read)),
    );

  buildWriteRoute(app, 'POST /engines/:id/builds', {
    body: newBuild,
    work: (db, { id: engine, body, context }) => openBuild(db, engine, body, context.personId),
  });

  buildWriteRoute(app, 'PATCH /builds/:id', {
    body: buildChange,
    work: (db, { id: build, body, context }) => changeBuild(db, build, body, context),
  });

  buildWriteRoute(app, 'POST /builds/:id/stage', {
    body: stageMoveRequest,
    status: 200,
    work: (db, { id: build, body, context }) => moveStage(db, build, body, context.personId),
  });

  buildWriteRoute(app, 'POST /builds/:id/job', {
    body: largerJob,
    status: 200,
    work: (db, { id: build, body, context }) => enlargeJob(db, build, body, context.personId),
  });

  buildWriteRoute(app, 'POST /builds/:id/set-cold', {
    body: setColdRequest,
    status: 200,
    work: (db, { id: build, body, context }) => setColdInstead(db, build, body, context),
  });

  buildWriteRoute(app, 'POST /builds/:id/abandon', {
    body: abandonRequest,
    status: 200,
    work: (db, { id: build, body, context }) => abandonBuild(db, build, body, context.personId),
  });

  buildWriteRoute(app, 'POST /builds/:id/restore', {
    body: restoreRequest,
    status: 200,
    work: (db, { id: build, body }) => restoreBuild(db, build, body.version),
  });

  buildWriteRoute(app, 'POST /builds/:id/ticks', {
    body: tickRequest,
    status: 200,
    work: (db, { id: build, body, context }) => tick(db, build, body, context),
  });

  buildWriteRoute(app, 'POST /builds/:id/notes', {
    body: noteRequest,
    work: (db, { id: build, body, context }) => addNote(db, build, body, context),
  });

  done();
}
