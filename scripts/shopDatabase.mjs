import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages } from './packages.mjs';
import { ensurePostgres } from './system.mjs';

/**
 * The database a command works on: the one DATABASE_URL names, or the project's own, started for as long as it is
 * needed where it is not running.
 *
 * @param {boolean} empty the project's own without the demo world
 * @returns {Promise<{ url: string, bin: string, close: () => void }>}
 */
export async function openShopDatabase(empty) {
  ensurePackages();
  const given = process.env.DATABASE_URL;
  if (given) return { url: given, bin: ensurePostgres(), close: () => undefined };
  const cluster = await startCluster('.data/postgres');
  try {
    const url = await ensureDatabase(cluster, empty ? 'zero_lash_empty' : 'zero_lash');
    return { url, bin: cluster.bin, close: cluster.stop };
  } catch (error) {
    cluster.stop();
    throw error;
  }
}

/** Runs a command's work on the shop's database; what it throws is said in one line. */
export async function withShopDatabase(empty, work) {
  let database;
  try {
    database = await openShopDatabase(empty);
    await work(database);
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 1;
  } finally {
    database?.close();
  }
}

/** What was asked of a command: its flags, and the words besides. A flag it does not know ends it. */
export function readArguments(known) {
  const words = process.argv.slice(2);
  const flags = new Set(words.filter((word) => word.startsWith('--')));
  const unknown = [...flags].find((flag) => !known.includes(flag));
  if (unknown) {
    process.stderr.write(`There is no ${unknown} here; there is: ${known.join(', ')}.\n`);
    process.exit(1);
  }
  return { has: (flag) => flags.has(flag), words: words.filter((word) => !word.startsWith('--')) };
}
