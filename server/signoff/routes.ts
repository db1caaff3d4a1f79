import { signOffRequest } from '@zero-lash/contract/signoff';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { signOff } from './store.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function signoffRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  buildWriteRoute(app, 'POST /builds/:id/sign-off', {
    body: signOffRequest,
    role: 'lead',
    work: (db, { id: build, body, context }) => signOff(db, build, body, context.personId),
  });
  done();
}
