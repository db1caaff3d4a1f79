import {
  feedTaken,
  meterAnswer,
  meterQuestions,
  usageRound,
  usageRoundTaken,
} from '@zero-lash/contract/usage';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { needs } from '../plugins/signIn.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { answerQuestion, readQuestions, takeFeed } from './feed.ts';
import { logRound } from './store.ts';

export function usageRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  writeRoute(app, 'POST /usage/round', {
    changes: ['usage'],
    body: usageRound,
    answer: usageRoundTaken,
    status: 200,
    work: (db, { body, context }) => logRound(db, body, context.personId),
  });

  app.get('/usage/questions', { schema: { response: { 200: meterQuestions } } }, () => readQuestions(app.db));

  writeRoute(app, 'POST /usage/questions/:id', {
    changes: ['usage'],
    body: meterAnswer,
    answer: meterQuestions,
    status: 200,
    work: async (db, { id: question, body, context }) => {
      await answerQuestion(db, question, body, context.personId);
      return readQuestions(db);
    },
  });

  // each line is taken once by what it is, whatever key the look comes with
  app.post('/usage/feed', { schema: { response: { 200: feedTaken } }, preHandler: needs('bench') }, () =>
    takeFeed(app.db),
  );
  done();
}
