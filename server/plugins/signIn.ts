import cookie from '@fastify/cookie';
import session from '@fastify/session';
import type { Person, PersonRole } from '@zero-lash/contract/people';
import type { FastifyInstance, FastifyRequest, preHandlerHookHandler } from 'fastify';
import plugin from 'fastify-plugin';
import { keyed } from '../keyed.ts';
import type { Versions } from '../tableVersions.ts';
import { Refusal } from './errors.ts';
import { DatabaseSessionStore } from './sessionStore.ts';

declare module 'fastify' {
  interface FastifyRequest {
    /** who is signed in; null only on routes marked `open` */
    person: Person | null;
  }
  interface FastifyInstance {
    /** what stands in the database for a session's id */
    sessionMark: (sid: string) => string;
  }
  interface FastifyContextConfig {
    /** may be called without signing in */
    open?: boolean;
  }
  interface Session {
    personId?: string;
    person?: Person;
    /** what could be seen in the database as the request came */
    versions?: Versions;
  }
}

const DAYS_SIGNED_IN = 14;

/** Puts a session, and whoever it belongs to, on every request of the routes beside it. */
export const signIn = plugin(async (app: FastifyInstance) => {
  const store = new DatabaseSessionStore(app.db, app.secret, app.versions);
  app.decorate('sessionMark', (sid: string) => store.markOf(sid));
  await app.register(cookie);
  await app.register(session, {
    secret: keyed(app.secret, 'cookie', 'zero_lash'),
    cookieName: 'zero_lash',
    store,
    saveUninitialized: false,
    rolling: false,
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: false,
      path: '/',
      maxAge: DAYS_SIGNED_IN * 86_400_000,
    },
  });
  app.decorateRequest('person', null);
  app.addHook('onRequest', (request, _reply, done) => {
    request.person = request.session.person ?? null;
    done();
  });
});

/**
 * Refuses every route of the plugin it is called in to whoever is not signed in, but those whose own declaration says
 * that they are open. It looks at the route that was found, never at the address as it was written.
 */
export function guard(app: FastifyInstance): void {
  app.addHook('onRequest', (request, _reply, done) => {
    done(request.person || request.routeOptions.config.open ? undefined : new Refusal('unauthenticated'));
  });
}

const SENTENCES: Partial<Record<PersonRole, string>> = {
  bench: 'A viewer reads only. Ask somebody from the bench, or a lead.',
  lead: 'Only a lead may do this.',
};

/** Lets through the roles that may do the bench's work, or only leads. */
export function needs(role: 'bench' | 'lead'): preHandlerHookHandler {
  return (request, _reply, done) => {
    const mine = request.person?.role;
    const allowed = role === 'lead' ? mine === 'lead' : mine === 'bench' || mine === 'lead';
    done(allowed ? undefined : new Refusal('forbidden', { detail: SENTENCES[role]! }));
  };
}

/** Whether whoever asks sees where owners are written to: who only looks on does not. */
export const seesAddresses = (request: FastifyRequest): boolean => personOf(request).role !== 'viewer';

/**
 * The person a guarded route runs for.
 *
 * @throws Refusal `unauthenticated` where nobody is signed in
 */
export function personOf(request: FastifyRequest): Person {
  if (!request.person) throw new Refusal('unauthenticated');
  return request.person;
}
