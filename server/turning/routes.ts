import { newTurning } from '@zero-lash/contract/turning';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { setTurning } from './store.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function turningRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  buildWriteRoute(app, 'PUT /rounds/:id/turning', {
    body: newTurning,
    work: (db, { id: round, body, context }) => setTurning(db, round, body, context),
  });
  done();
}
