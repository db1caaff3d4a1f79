import {
  newPerson,
  ownPassphrase,
  person,
  personChange,
  personChanged,
  proposedAddress,
  session,
  shop,
  shopChange,
  signIn,
} from '@zero-lash/contract/people';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance, FastifyReply } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { nothing } from '../answers.ts';
import { keyed } from '../keyed.ts';
import { announce } from '../plugins/bus.ts';
import { Refusal } from '../plugins/errors.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { wasWritten, writeOnce } from '../plugins/writes.ts';
import { beginTry, endTry, type Caller } from './throttle.ts';
import { knownDevice, rememberDevice } from './devices.ts';
import { hashPassphrase, passphraseMatches } from '../plugins/passphrase.ts';
import * as store from './store.ts';

/** So many names that nobody has are told from one another: 4096. */
const NAME_MARK_DIGITS = 3;

export async function peopleRoutes(instance: FastifyInstance): Promise<void> {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('lead');
  const nobody = await hashPassphrase('no such person has this passphrase');

  /** Names that nobody has are counted under a few marks: whatever is guessed leaves no more than that behind. */
  const nameMarkOf = (name: string) =>
    keyed(app.secret, 'name', name.normalize('NFKC').toLowerCase()).slice(0, NAME_MARK_DIGITS);

  /** Tries a passphrase, as often as the door allows. */
  async function tryOnce(reply: FastifyReply, caller: Caller, hash: string, passphrase: string) {
    const wait = await beginTry(app.db, caller);
    if (wait > 0) {
      void reply.header('retry-after', wait);
      throw new Refusal('too_many_tries', {
        detail: `Too many wrong passphrases. Try again in ${wait === 1 ? 'a second' : `${wait} seconds`}, or on a device you have signed in on before.`,
      });
    }
    let outcome: 'good' | 'miss' | 'broken' = 'broken';
    try {
      outcome = (await passphraseMatches(hash, passphrase)) ? 'good' : 'miss';
    } finally {
      await endTry(app.db, caller, outcome);
    }
    return outcome === 'good';
  }

  app.get('/session', { schema: { response: { 200: session } } }, (request) =>
    store.readSession(app.db, personOf(request)),
  );

  app.post(
    '/session',
    { schema: { body: signIn, response: { 200: session } }, config: { open: true, keyless: true } },
    async (request, reply) => {
      const { name, passphrase } = request.body;
      const found = await store.findForSignIn(app.db, name);
      const caller = {
        personId: found?.id ?? null,
        nameMark: nameMarkOf(name),
        address: request.ip,
        knownDevice: found && (await knownDevice(request, found.id)),
      };
      const matches = await tryOnce(reply, caller, found?.passphraseHash ?? nobody, passphrase);
      if (!found || !matches) throw new Refusal('wrong_passphrase');
      await rememberDevice(request, reply, found.id);
      await request.session.regenerate();
      // where the page came over HTTPS, itself or through a proxy that is trusted, the cookie goes no other way
      request.session.options({ secure: request.protocol === 'https' });
      request.session.personId = found.id;
      await request.session.save();
      const { passphraseHash: _, ...signedIn } = found;
      return store.readSession(app.db, signedIn);
    },
  );

  app.delete('/session', { schema: { response: { 204: nothing } } }, async (request, reply) => {
    const mark = app.sessionMark(request.session.sessionId);
    await request.session.destroy();
    await announce(app.db, { kind: 'session-ended', session: mark });
    return reply.code(204).send(null);
  });

  app.delete('/session/everywhere', { schema: { response: { 204: nothing } } }, async (request, reply) => {
    await store.endSessions(app.db, personOf(request).id);
    return reply.code(204).send(null);
  });

  // whoever is signed in, a viewer too, knows a passphrase that nobody else chose for them
  app.patch(
    '/session/passphrase',
    { schema: { body: ownPassphrase, response: { 204: nothing } } },
    async (request, reply) => {
      const { id: personId } = personOf(request);
      const { currentPassphrase, passphrase } = request.body;
      // one that was done already, and is only asked for again, goes by the passphrase it had then
      if (!(await wasWritten(app.db, request))) {
        const caller = {
          ...{ personId, nameMark: '', address: request.ip },
          knownDevice: await knownDevice(request, personId),
        };
        const hash = await store.passphraseHashOf(app.db, personId);
        if (!(await tryOnce(reply, caller, hash, currentPassphrase))) throw new Refusal('other_passphrase');
      }
      const hash = await hashPassphrase(passphrase);
      const keep = app.sessionMark(request.session.sessionId);
      return writeOnce(app.db, request, reply, 204, async (transaction) => {
        await store.changeOwnPassphrase(transaction, personId, hash, keep);
        return null;
      });
    },
  );

  writeRoute(app, 'PATCH /shop', {
    changes: ['shop', 'tools'],
    body: shopChange,
    answer: shop,
    role: 'lead',
    work: (db, { body }) => store.changeShop(db, body),
  });

  app.get(
    '/shop/address',
    { schema: { response: { 200: proposedAddress } }, preHandler },
    () => app.sharedAt,
  );

  app.get('/people', { schema: { response: { 200: z.array(person) } }, preHandler }, () =>
    store.listPeople(app.db),
  );

  app.get('/people/changes', { schema: { response: { 200: z.array(personChanged) } }, preHandler }, () =>
    store.readChanges(app.db),
  );

  writeRoute(app, 'POST /people', {
    changes: ['people'],
    body: newPerson,
    answer: person,
    role: 'lead',
    makeReady: ({ body }) => hashPassphrase(body.passphrase),
    work: (db, { body: { passphrase: _, ...fields }, ready: passphraseHash, context }) =>
      store.addPerson(db, { ...fields, passphraseHash }, context.personId),
  });

  writeRoute(app, 'PATCH /people/:id', {
    changes: ['people'],
    body: personChange,
    answer: person,
    role: 'lead',
    makeReady: async ({ body: { passphrase } }) =>
      passphrase === undefined ? null : hashPassphrase(passphrase),
    work: (db, { id: who, body: { passphrase: _, ...change }, ready: passphraseHash, context }) =>
      store.changePerson(db, who, { ...change, passphraseHash }, context.personId),
  });

  app.delete(
    '/people/:id/sessions',
    { schema: { params, response: { 204: nothing } }, preHandler },
    async (request, reply) => {
      await store.findPerson(app.db, request.params.id);
      await store.endSessions(app.db, request.params.id);
      return reply.code(204).send(null);
    },
  );
}
