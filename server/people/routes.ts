import rateLimit from '@fastify/rate-limit';
import { newPerson, personChange, shopChange, signIn } from '@zero-lash/contract/people';
import type { Session } from '@zero-lash/contract/people';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { hashPassphrase, passphraseMatches } from './passphrase.ts';
import * as store from './store.ts';

const SIGN_INS_A_MINUTE = 60;

export async function peopleRoutes(instance: FastifyInstance): Promise<void> {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const nobody = await hashPassphrase('no such person has this passphrase');
  await app.register(rateLimit, { global: false });

  app.get('/api/session', async (request): Promise<Session> => ({
    person: personOf(request),
    shop: await store.readShop(app.db),
  }));

  app.post(
    '/api/session',
    {
      schema: { body: signIn },
      config: { open: true, rateLimit: { max: SIGN_INS_A_MINUTE, timeWindow: '1 minute' } },
    },
    async (request, reply): Promise<Session> => {
      const { name, passphrase } = request.body;
      const wait = await store.secondsToWait(app.db, name, request.ip);
      if (wait > 0) {
        void reply.header('retry-after', wait);
        throw new Refusal('too_many_tries', {
          detail: `Too many wrong passphrases for this name. Try again in ${wait} seconds.`,
        });
      }
      const found = await store.findForSignIn(app.db, name);
      const matches = await passphraseMatches(found?.passphraseHash ?? nobody, passphrase);
      if (!found || !matches) {
        await store.noteFailure(app.db, name, request.ip);
        throw new Refusal('wrong_passphrase');
      }
      await store.forgetFailures(app.db, name, request.ip);
      await request.session.regenerate();
      request.session.personId = found.id;
      await request.session.save();
      const { passphraseHash: _, ...person } = found;
      return { person, shop: await store.readShop(app.db) };
    },
  );

  app.delete('/api/session', async (request, reply) => {
    await request.session.destroy();
    return reply.code(204).send();
  });

  app.patch('/api/shop', { schema: { body: shopChange }, preHandler: needs('lead') }, (request, reply) =>
    writeOnce(app.db, request, reply, 200, (transaction) => store.changeShop(transaction, request.body)),
  );

  app.get('/api/people', { preHandler: needs('lead') }, () => store.listPeople(app.db));

  app.post('/api/people', { schema: { body: newPerson }, preHandler: needs('lead') }, (request, reply) =>
    writeOnce(app.db, request, reply, 201, (transaction) => store.addPerson(transaction, request.body)),
  );

  app.patch(
    '/api/people/:id',
    { schema: { params: z.object({ id }), body: personChange }, preHandler: needs('lead') },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.changePerson(transaction, request.params.id, request.body),
      ),
  );
}
