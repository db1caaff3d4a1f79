import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { viewBuild } from '../builds/view.ts';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import * as store from './store.ts';

export function recheckRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const options = { schema: { params: z.object({ id }) }, preHandler: needs('bench') };

  app.post('/rechecks/:id/round', options, (request, reply) =>
    writeBuild(request, reply, 201, async (transaction) =>
      viewBuild(
        transaction,
        await store.openRecheckRound(transaction, request.params.id, personOf(request).id),
      ),
    ),
  );

  app.post('/rechecks/:id/outcome', options, (request, reply) =>
    writeBuild(request, reply, 201, async (transaction) =>
      viewBuild(transaction, await store.closeRecheck(transaction, request.params.id, personOf(request).id)),
    ),
  );
  done();
}
