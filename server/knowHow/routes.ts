import { buildWrite } from '@zero-lash/contract/builds';
import { knowHowChange, knowHowRow, newKnowHow } from '@zero-lash/contract/knowHow';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { addKnowHow, changeKnowHow } from './store.ts';

export function knowHowRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.post(
    '/builds/:id/know-how',
    { schema: { params, body: newKnowHow, response: { 201: buildWrite } }, preHandler: needs('bench') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addKnowHow(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );

  app.patch(
    '/know-how/:id',
    { schema: { params, body: knowHowChange, response: { 200: knowHowRow } }, preHandler: needs('lead') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        changeKnowHow(transaction, request.params.id, request.body),
      ),
  );
  done();
}
