import { buildWrite } from '@zero-lash/contract/builds';
import { newTurning } from '@zero-lash/contract/turning';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { setTurning } from './store.ts';

export function turningRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.put(
    '/rounds/:id/turning',
    { schema: { params, body: newTurning, response: { 200: buildWrite } }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        setTurning(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );
  done();
}
