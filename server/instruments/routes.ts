import {
  bench,
  benchChange,
  instrument,
  instrumentChange,
  newBench,
  newCheck,
  newInstrument,
  tools,
} from '@zero-lash/contract/instruments';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeAndTell } from '../plugins/writes.ts';
import * as store from './store.ts';

const tellTools = () => ({ kind: 'tools' as const });

export function instrumentRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.get('/tools', { schema: { response: { 200: tools } } }, () => store.readTools(app.db));

  app.post(
    '/instruments',
    { schema: { body: newInstrument, response: { 201: instrument } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        store.addInstrument(transaction, request.body),
      ),
  );

  app.patch(
    '/instruments/:id',
    { schema: { params, body: instrumentChange, response: { 200: instrument } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 200, (transaction) =>
        store.changeInstrument(transaction, request.params.id, request.body),
      ),
  );

  app.post(
    '/instruments/:id/checks',
    { schema: { params, body: newCheck, response: { 201: instrument } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        store.checkInstrument(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );

  app.post(
    '/benches',
    { schema: { body: newBench, response: { 201: bench } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 201, (transaction) =>
        store.addBench(transaction, request.body),
      ),
  );

  app.patch(
    '/benches/:id',
    { schema: { params, body: benchChange, response: { 200: bench } }, preHandler },
    (request, reply) =>
      writeAndTell(app.db, request, reply, tellTools, 200, (transaction) =>
        store.changeBench(transaction, request.params.id, request.body),
      ),
  );
  done();
}
