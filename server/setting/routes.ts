import { buildWrite } from '@zero-lash/contract/builds';
import { newSetting } from '@zero-lash/contract/setting';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { handOf } from '../builds/hand.ts';
import { writeBuild } from '../builds/write.ts';
import { needs } from '../plugins/signIn.ts';
import { addSetting } from './store.ts';

export function settingRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.post(
    '/builds/:id/settings',
    { schema: { params, body: newSetting, response: { 201: buildWrite } }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addSetting(transaction, request.params.id, request.body, handOf(request)),
      ),
  );
  done();
}
