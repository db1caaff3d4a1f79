import { today } from '@zero-lash/contract/today';
import type { FastifyInstance } from 'fastify';
import type { TodayKeeper } from './keeper.ts';

/** Serves Today as data; `keeper` is the one the first page reads too. */
export function todayRoutes(
  app: FastifyInstance,
  { keeper }: { readonly keeper: TodayKeeper },
  done: () => void,
): void {
  app.get('/today', { schema: { response: { 200: today } } }, async (_request, reply) => {
    void reply.type('application/json; charset=utf-8');
    return keeper.read();
  });
  done();
}
