import knex, { type Knex } from 'knex';
import pg from 'pg';
import { migrationSource } from './migrations/index.ts';

const { builtins } = pg.types;
const asText = (text: string) => text;

/**
 * Connects to PostgreSQL. Numbers come back as numbers and days as `yyyy-mm-dd`, never as a local midnight.
 *
 * @example const db = connect('postgres://zero_lash@127.0.0.1:5433/zero_lash');
 */
export function connect(url: string, poolSize = 10): Knex {
  return knex({
    client: 'pg',
    connection: {
      connectionString: url,
      types: {
        getTypeParser: (oid: number, format?: 'text' | 'binary') => {
          if (oid === builtins.DATE) return asText;
          if (oid === builtins.NUMERIC || oid === builtins.INT8) return Number;
          return pg.types.getTypeParser(oid, format as 'text');
        },
      } as unknown as pg.CustomTypesConfig,
    } as Knex.PgConnectionConfig,
    pool: { min: 1, max: poolSize },
  });
}

/** Brings the database to the newest migration. */
export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest({ migrationSource });
}
