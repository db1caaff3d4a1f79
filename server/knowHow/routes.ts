import { knowHowChange, knowHowRow, newKnowHow } from '@zero-lash/contract/knowHow';
import type { FastifyInstance } from 'fastify';
import { writeRoute } from '../plugins/writeRoute.ts';
import { addKnowHow, changeKnowHow } from './store.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function knowHowRoutes(app: FastifyInstance, _options: object, done: () => void): void {
  buildWriteRoute(app, 'POST /builds/:id/know-how', {
    body: newKnowHow,
    work: (db, { id: build, body, context }) => addKnowHow(db, build, body, context),
  });

  writeRoute(app, 'PATCH /know-how/:id', {
    changes: ['know-how'],
    body: knowHowChange,
    answer: knowHowRow,
    role: 'lead',
    work: (db, { id, body }) => changeKnowHow(db, id, body),
  });
  done();
}
