import { newSetting } from '@zero-lash/contract/setting';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { addSetting } from './store.ts';

export function settingRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.post('/builds/:id/settings', { schema: { params, body: newSetting }, preHandler }, (request, reply) =>
    writeBuild(request, reply, 201, (transaction) =>
      addSetting(transaction, request.params.id, request.body, personOf(request).id),
    ),
  );
  done();
}
