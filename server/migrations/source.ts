import type { Knex } from 'knex';

/** A step from one schema to the next, and back. */
interface Step {
  readonly up: (knex: Knex) => Promise<void>;
  readonly down: (knex: Knex) => Promise<void>;
}

/** Steps in order, named in code so that they run the same from sources, as they are built, and from a test. */
export const sourceOf = (steps: Readonly<Record<string, Step>>): Knex.MigrationSource<string> => ({
  getMigrations: () => Promise.resolve(Object.keys(steps)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(steps[name]!),
});
