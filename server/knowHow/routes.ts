import { knowHowChange, knowHowRow, newKnowHow } from '@zero-lash/contract/knowHow';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { addKnowHow, changeKnowHow } from './store.ts';
import { writeRoute } from '../builds/writeRoute.ts';

export function knowHowRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  writeRoute(app, 'POST /builds/:id/know-how', {
    body: newKnowHow,
    work: (db, { id: build, body, context }) => addKnowHow(db, build, body, context),
  });

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
