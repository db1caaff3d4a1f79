import {
  drawer,
  drawerMove,
  newCount,
  newDelivery,
  newMoves,
  newOrder,
  pieceOrder,
  systemChange,
} from '@zero-lash/contract/drawer';
import { id, line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeAndTell, writeKey } from '../plugins/writes.ts';
import { addOrder, orderPaper, readOrders, takeDelivery } from './orders.ts';
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

  const orders = z.array(pieceOrder);
  app.get('/drawer/orders', { schema: { response: { 200: orders } } }, () => readOrders(app.db));

  app.post(
    '/drawer/orders',
    { schema: { body: newOrder, response: { 201: orders } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        addOrder(transaction, request.body, personOf(request).id, writeKey(request)),
      ),
  );

  app.post(
    '/drawer/orders/:id/delivery',
    { schema: { params: z.object({ id }), body: newDelivery, response: { 200: orders } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 200, (transaction) =>
        takeDelivery(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.get('/drawer/orders/:id/paper', { schema: { params: z.object({ id }) } }, async (request, reply) => {
    const paper = await orderPaper(app.db, request.params.id);
    return reply
      .header('content-disposition', 'inline; filename="order.pdf"')
      .type('application/pdf')
      .send(await app.papers.draw('list', paper));
  });
  done();
}
