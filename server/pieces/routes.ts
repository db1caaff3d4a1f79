import {
  drawer,
  drawerMove,
  newCount,
  newDelivery,
  newMoves,
  newOrder,
  pieceOrder,
  systemChange,
} from '@zero-lash/contract/pieces';
import { id, line } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { writeRoute } from '../plugins/writeRoute.ts';
import { addOrder, orderPaper, readOrders, takeDelivery } from './orders.ts';
import { addMoves, changeSystem, countDrawer, readDrawer, readMoves } from './store.ts';

export function drawerRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/drawer', { schema: { response: { 200: drawer } } }, (_request, reply) =>
    app.cache.answer(reply, () => readDrawer(app.db)),
  );

  app.get(
    '/drawer/moves',
    { schema: { querystring: z.object({ system: line(40) }), response: { 200: z.array(drawerMove) } } },
    (request) => readMoves(app.db, request.query.system),
  );

  writeRoute(app, 'POST /drawer/moves', {
    changes: ['drawer'],
    body: newMoves,
    answer: drawer,
    work: (db, { body, context }) => addMoves(db, body, context.personId),
  });

  writeRoute(app, 'POST /drawer/counts', {
    changes: ['drawer'],
    body: newCount,
    answer: drawer,
    work: (db, { body, context }) => countDrawer(db, body, context.personId),
  });

  writeRoute(app, 'PUT /drawer/systems/:system', {
    changes: ['drawer'],
    params: z.object({ system: line(40) }),
    body: systemChange,
    answer: drawer,
    work: (db, { params: { system }, body }) => changeSystem(db, system, body),
  });

  const orders = z.array(pieceOrder);
  app.get('/drawer/orders', { schema: { response: { 200: orders } } }, () => readOrders(app.db));

  writeRoute(app, 'POST /drawer/orders', {
    changes: ['drawer'],
    body: newOrder,
    answer: orders,
    work: (db, { body, context }) => addOrder(db, body, context.personId, context.key),
  });

  writeRoute(app, 'POST /drawer/orders/:id/delivery', {
    changes: ['drawer'],
    body: newDelivery,
    answer: orders,
    status: 200,
    work: (db, { id: order, body, context }) => takeDelivery(db, order, body, context.personId),
  });

  app.get('/drawer/orders/:id/paper', { schema: { params: z.object({ id }) } }, async (request, reply) => {
    const paper = await orderPaper(app.db, request.params.id);
    return reply
      .header('content-disposition', 'inline; filename="order.pdf"')
      .type('application/pdf')
      .send(await app.papers.draw('list', paper));
  });
  done();
}
