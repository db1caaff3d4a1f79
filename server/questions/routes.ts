import { timeQuestionLeft } from '@zero-lash/contract/morning';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { leaveTimeQuestion } from './store.ts';

export function questionRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.post(
    '/time-questions/:key/left',
    {
      schema: { params: z.object({ key: id }), response: { 200: timeQuestionLeft } },
      preHandler: needs('bench'),
    },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, async (transaction) => {
        await leaveTimeQuestion(transaction, request.params.key, personOf(request));
        return { left: true };
      }),
  );
  done();
}
