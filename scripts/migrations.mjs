import { ensurePackages } from './packages.mjs';

/** The server's own migrations, for the commands that work on a database without a server. */
export async function loadMigrations() {
  ensurePackages();
  const { register } = await import('tsx/esm/api');
  register();
  const { connect, migrate, oneServerAtATime } = await import('../server/database.ts');
  const { KNOWN_NAMES, migrationSource } = await import('../server/migrations/index.ts');
  /** Does something with a connection to a database, alone. */
  const withDatabase = async (url, work) => {
    const db = connect(url, { poolSize: 2, patient: true });
    try {
      return await oneServerAtATime(db, () => work(db));
    } finally {
      await db.destroy();
    }
  };
  return {
    names: await migrationSource.getMigrations([]),
    /** with those of databases from before the first schema */
    known: KNOWN_NAMES,
    up: (url) => withDatabase(url, migrate),
    down: (url) =>
      withDatabase(url, async (db) => {
        const [, undone] = await db.migrate.down({ migrationSource });
        return undone[0] ?? null;
      }),
    done: (url) =>
      withDatabase(url, async (db) => {
        const [done] = await db.migrate.list({ migrationSource });
        return done.map(({ name }) => name);
      }),
  };
}
