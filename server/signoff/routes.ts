import { buildWrite } from '@zero-lash/contract/builds';
import { signOffRequest } from '@zero-lash/contract/signoff';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { signOff } from './store.ts';

export function signoffRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  app.post(
    '/builds/:id/sign-off',
    { schema: { params, body: signOffRequest, response: { 201: buildWrite } }, preHandler: needs('lead') },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        signOff(transaction, request.params.id, request.body, personOf(request).id),
      ),
  );
  done();
}
