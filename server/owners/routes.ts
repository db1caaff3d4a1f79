import { owner, ownerChange } from '@zero-lash/contract/owners';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { seesAddresses } from '../plugins/signIn.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { changeOwner, readOwners } from './store.ts';

export function ownerRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/owners', { schema: { response: { 200: z.array(owner) } } }, async (request) => {
    const owners = await readOwners(app.db);
    if (seesAddresses(request)) return owners;
    return owners.map((each) => ({ ...each, email: each.email === '' ? '' : null }));
  });

  writeRoute(app, 'PATCH /owners/:id', {
    changes: ['owners'],
    body: ownerChange,
    answer: owner,
    work: (db, { id, body }) => changeOwner(db, id, body),
  });
  done();
}
