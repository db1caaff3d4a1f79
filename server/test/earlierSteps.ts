import type { Knex } from 'knex';
import { EARLIER_NAMES, earlierSource } from '../migrations/earlier/index.ts';

/** Makes a database one as an earlier version left it: begun by the steps before the first schema, so many of them not done yet. */
export async function takeBack(db: Knex, steps: number): Promise<void> {
  await db('knex_migrations').delete();
  await db('knex_migrations').insert(
    EARLIER_NAMES.map((name, index) => ({ name, batch: index + 1, migration_time: db.fn.now() })),
  );
  for (let step = 0; step < steps; step += 1) await db.migrate.down({ migrationSource: earlierSource });
}
