import { drawer, drawerMove, newCount, newMoves, systemChange } from '@zero-lash/contract/drawer';
import { line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeAndTell } from '../plugins/writes.ts';
import { addMoves, changeSystem, countDrawer, readDrawer, readMoves } from './store.ts';

const tellTools = () => ({ kind: 'tools' as const });

export function drawerRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const preHandler = needs('bench');

  app.get('/drawer', { schema: { response: { 200: drawer } } }, () => readDrawer(app.db));

  app.get(
    '/drawer/moves',
    { schema: { querystring: z.object({ system: line(40) }), response: { 200: z.array(drawerMove) } } },
    (request) => readMoves(app.db, request.query.system),
  );

  app.post(
    '/drawer/moves',
    { schema: { body: newMoves, response: { 201: drawer } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        addMoves(transaction, request.body, personOf(request).id),
      ),
  );

  app.post(
    '/drawer/counts',
    { schema: { body: newCount, response: { 201: drawer } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        countDrawer(transaction, request.body, personOf(request).id),
      ),
  );

  app.put(
    '/drawer/systems/:system',
    {
      schema: { params: z.object({ system: line(40) }), body: systemChange, response: { 200: drawer } },
      preHandler,
    },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 200, (transaction) =>
        changeSystem(transaction, request.params.system, request.body),
      ),
  );
  done();
}
