import knex, { type Knex } from 'knex';
import pg from 'pg';
import { bringOver, migrationSource } from './migrations/index.ts';

const { builtins } = pg.types;
const asText = (text: string) => text;
const quiet = () => undefined;

/** How long anything waits for the database before it is told so; in ms. */
const LIMITS = {
  connectionTimeoutMillis: 5000,
  lock_timeout: 5000,
  statement_timeout: 30_000,
  idle_in_transaction_session_timeout: 60_000,
  // what is asked here takes milliseconds, and compiling it takes fifty
  options: '-c jit=off',
};

/** How a database is used. */
interface Use {
  /** connections at the most */
  readonly poolSize?: number;
  /** work of hours, such as a migration: no statement is cut off */
  readonly patient?: boolean;
}

/**
 * Connects to PostgreSQL. Numbers come back as numbers and days as `yyyy-mm-dd`, never as a local midnight.
 *
 * @example const db = connect('postgres://zero_lash@127.0.0.1:5433/zero_lash');
 */
export function connect(url: string, { poolSize = 12, patient = false }: Use = {}): Knex {
  return knex({
    client: 'pg',
    connection: {
      connectionString: url,
      keepAlive: true,
      ...(patient ? {} : LIMITS),
      types: {
        getTypeParser: (oid: number, format?: 'text' | 'binary') => {
          if (oid === builtins.DATE) return asText;
          if (oid === builtins.NUMERIC || oid === builtins.INT8) return Number;
          return pg.types.getTypeParser(oid, format as 'text');
        },
      } as unknown as pg.CustomTypesConfig,
    } as Knex.PgConnectionConfig,
    acquireConnectionTimeout: 10_000,
    // whoever asked is told of what failed: it is not written to the terminal besides
    log: { warn: quiet, error: quiet, deprecate: quiet, debug: quiet },
    pool: { min: 0, max: poolSize },
  });
}

/** Any number that nothing else on the database locks. */
const STARTING = 4_510_001;

/**
 * Does what only one server at a time may do to a database: migrate it, fill an empty one. Others wait their turn. The
 * lock goes with the connection, so that one killed in the middle holds nobody up.
 */
export async function oneServerAtATime<Answer>(db: Knex, work: () => Promise<Answer>): Promise<Answer> {
  const connection = (await db.client.acquireRawConnection()) as pg.Client;
  connection.on('error', () => undefined);
  try {
    await connection.query('set lock_timeout = 0');
    await connection.query('set statement_timeout = 0');
    await connection.query('select pg_advisory_lock($1)', [STARTING]);
    return await work();
  } finally {
    await connection.end().catch(() => undefined);
  }
}

/**
 * Brings the database to the newest migration. It is called by one server at a time, so a lock that is found set was
 * left by one that was killed.
 */
export async function migrate(db: Knex): Promise<void> {
  if (await db.schema.hasTable('knex_migrations_lock')) await db.migrate.forceFreeMigrationsLock();
  await bringOver(db);
  await db.migrate.latest({ migrationSource });
}
