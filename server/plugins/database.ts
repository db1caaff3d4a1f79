import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import type { Knex } from 'knex';
import limit, { type LimitFunction } from 'p-limit';
import { AnswerCache } from '../answerCache.ts';
import { TableVersions } from '../tableVersions.ts';

declare module 'fastify' {
  interface FastifyInstance {
    db: Knex;
    /** what can be seen in the database */
    versions: TableVersions;
    /** keeps what was read for as long as it is still the truth */
    cache: AnswerCache;
    /** the shop's secret, which stands outside the database */
    secret: string;
    /** writes wait here for their turn, so that some connections are always left to those who read */
    writeSlots: LimitFunction;
  }
}

/** Writes at once, of the connections a server has: fewer than there are. */
const WRITES_AT_ONCE = 7;

/** Gives every route the database and the shop's secret. */
export const database = plugin(
  (app: FastifyInstance, { db, secret }: { readonly db: Knex; readonly secret: string }, done) => {
    app.decorate('db', db);
    const versions = new TableVersions(db);
    app.decorate('versions', versions);
    app.decorate('cache', new AnswerCache(db, versions));
    app.decorate('secret', secret);
    app.decorate('writeSlots', limit(WRITES_AT_ONCE));
    done();
  },
);
