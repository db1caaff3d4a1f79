import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import type { Knex } from 'knex';

declare module 'fastify' {
  interface FastifyInstance {
    db: Knex;
  }
}

/** Gives every route the database, and lets it go when the server closes. */
export const database = plugin((app: FastifyInstance, { db }: { readonly db: Knex }, done) => {
  app.decorate('db', db);
  done();
});
