import type { Knex } from 'knex';
import { EARLIER_NAMES, earlierSource } from '../migrations/earlier/index.ts';
import { migrationSource } from '../migrations/index.ts';

/** Makes a database one as an earlier version left it: begun by the steps before the first schema, so many of them not done yet. */
export async function takeBack(db: Knex, steps: number): Promise<void> {
  const since = (await migrationSource.getMigrations([])).slice(1);
  for (const _step of since) await db.migrate.down({ migrationSource });
  await db('knex_migrations').delete();
  await db('knex_migrations').insert(
    EARLIER_NAMES.map((name, index) => ({ name, batch: index + 1, migration_time: db.fn.now() })),
  );
  for (let step = 0; step < steps; step += 1) await db.migrate.down({ migrationSource: earlierSource });
}
