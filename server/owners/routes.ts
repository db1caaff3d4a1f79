import { owner, ownerChange } from '@zero-lash/contract/owners';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, seesAddresses } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { changeOwner, readOwners } from './store.ts';

export function ownerRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/owners', { schema: { response: { 200: z.array(owner) } } }, async (request) => {
    const owners = await readOwners(app.db);
    if (seesAddresses(request)) return owners;
    return owners.map((each) => ({ ...each, email: each.email === '' ? '' : null }));
  });

  app.patch(
    '/owners/:id',
    {
      schema: { params: z.object({ id }), body: ownerChange, response: { 200: owner } },
      preHandler: needs('bench'),
    },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        changeOwner(transaction, request.params.id, request.body),
      ),
  );
  done();
}
