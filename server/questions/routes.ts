import { timeQuestionLeft } from '@zero-lash/contract/morning';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { writeRoute } from '../plugins/writeRoute.ts';
import { leaveTimeQuestion } from './store.ts';

export function questionRoutes(app: FastifyInstance, _options: object, done: () => void): void {
  writeRoute(app, 'POST /time-questions/:key/left', {
    changes: ['bench'],
    params: z.object({ key: id }),
    answer: timeQuestionLeft,
    status: 200,
    work: async (db, { params: { key }, context }) => {
      await leaveTimeQuestion(db, key, context);
      return { left: true };
    },
  });
  done();
}
