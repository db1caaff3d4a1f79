import { morning } from '@zero-lash/contract/morning';
import { today } from '@zero-lash/contract/today';
import type { FastifyInstance } from 'fastify';
import type { AnswerCache } from '../answerCache.ts';
import { personOf } from '../plugins/signIn.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { markLooked, readMorning } from './morning.ts';
import { readToday } from './store.ts';
import type { Versions } from '../tableVersions.ts';

const TODAY = 'today';
type Make = Parameters<AnswerCache['read']>[1];
const makeToday =
  (db: FastifyInstance['db']): Make =>
  (day, part) =>
    readToday(db, day, part);

/** Today as JSON, for the first page, which has it in it. */
export const todayAsJson = ({ cache, db }: FastifyInstance, seen?: Versions): Promise<string> =>
  cache.read(TODAY, makeToday(db), seen);

export function todayRoutes(app: FastifyInstance, _options: object, done: () => void): void {
  app.get('/today', { schema: { response: { 200: today } } }, (_request, reply) =>
    app.cache.answer(reply, makeToday(app.db), TODAY),
  );

  app.get('/morning', { schema: { response: { 200: morning } } }, (request) =>
    readMorning(app.db, personOf(request).id),
  );

  writeRoute(app, 'POST /morning/looked', {
    changes: [],
    answer: morning,
    role: 'viewer',
    status: 200,
    work: async (db, { context }) => {
      await markLooked(db, context.personId);
      return readMorning(db, context.personId);
    },
  });
  done();
}
