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
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { writeRoute } from '../plugins/writeRoute.ts';
import * as store from './store.ts';

export function instrumentRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/tools', { schema: { response: { 200: tools } } }, () => store.readTools(app.db));

  writeRoute(app, 'POST /instruments', {
    changes: ['tools'],
    body: newInstrument,
    answer: instrument,
    work: (db, { body }) => store.addInstrument(db, body),
  });

  writeRoute(app, 'PATCH /instruments/:id', {
    changes: ['tools'],
    body: instrumentChange,
    answer: instrument,
    work: (db, { id: tool, body }) => store.changeInstrument(db, tool, body),
  });

  writeRoute(app, 'POST /instruments/:id/checks', {
    changes: ['tools'],
    body: newCheck,
    answer: instrument,
    work: (db, { id: tool, body, context }) => store.checkInstrument(db, tool, body, context.personId),
  });

  writeRoute(app, 'POST /benches', {
    changes: ['tools'],
    body: newBench,
    answer: bench,
    work: (db, { body }) => store.addBench(db, body),
  });

  writeRoute(app, 'PATCH /benches/:id', {
    changes: ['tools'],
    body: benchChange,
    answer: bench,
    work: (db, { id: place, body }) => store.changeBench(db, place, body),
  });
  done();
}
