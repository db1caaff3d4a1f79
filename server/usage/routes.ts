import {
  feedTaken,
  meterAnswer,
  meterQuestions,
  usageRound,
  usageRoundTaken,
} from '@zero-lash/contract/usage';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { answerQuestion, readQuestions, takeFeed } from './feed.ts';
import { logRound } from './store.ts';

export function usageRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const preHandler = needs('bench');

  app.post(
    '/usage/round',
    { schema: { body: usageRound, response: { 200: usageRoundTaken } }, preHandler },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        logRound(transaction, request.body, personOf(request).id),
      ),
  );

  app.get('/usage/questions', { schema: { response: { 200: meterQuestions } } }, () => readQuestions(app.db));

  app.post(
    '/usage/questions/:id',
    {
      schema: { params: z.object({ id }), body: meterAnswer, response: { 200: meterQuestions } },
      preHandler,
    },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, async (transaction) => {
        await answerQuestion(transaction, request.params.id, request.body, personOf(request).id);
        return readQuestions(transaction);
      }),
  );

  // each line is taken once by what it is, whatever key the look comes with
  app.post('/usage/feed', { schema: { response: { 200: feedTaken } }, preHandler }, () => takeFeed(app.db));
  done();
}
