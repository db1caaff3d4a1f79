import { today } from '@zero-lash/contract/today';
import type { FastifyInstance } from 'fastify';
import { readToday } from './store.ts';

/** Today as JSON, for the page that asks for it and for the first page, which has it in it. */
export const todayAsJson = ({ keeper, db }: FastifyInstance): Promise<string> =>
  keeper.read('today', (day) => readToday(db, day));

export function todayRoutes(app: FastifyInstance, _options: object, done: () => void): void {
  app.get('/today', { schema: { response: { 200: today } } }, async (_request, reply) => {
    void reply.type('application/json; charset=utf-8');
    return todayAsJson(app);
  });
  done();
}
