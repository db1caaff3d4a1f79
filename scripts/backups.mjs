import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { ask, askAll } from './database.mjs';

/** What a schema's version is read from: without it a file is no backup of a shop. */
const VERSIONS = 'knex_migrations';

/** Runs a program of PostgreSQL on a database; its password goes by the environment, where no list of processes shows it. */
function run(bin, program, args, url) {
  const env = { ...process.env };
  const target = [];
  if (url) {
    const plain = new URL(url);
    env.PGPASSWORD = decodeURIComponent(plain.password);
    plain.password = '';
    target.push('--dbname', plain.href);
  }
  const done = spawnSync(`${bin}/${program}`, [...target, ...args], {
    env,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  if (done.error) throw new Error(`${program} could not be run: ${done.error.message}`);
  if (done.status !== 0) throw new Error(`${program} failed: ${done.stderr.trim().split('\n').at(-1)}`);
  return done.stdout;
}

const tablesOf = async (url) =>
  (await ask(url, `select tablename from pg_tables where schemaname = 'public' order by 1`)).map(
    ({ tablename }) => tablename,
  );

/** The tables whose rows a backup holds. */
function tablesIn(bin, file) {
  const list = run(bin, 'pg_restore', ['--list', file]);
  return [...list.matchAll(/^\d+; \d+ \d+ TABLE DATA public (\S+) /gm)].map((match) => match[1]).sort();
}

/**
 * Writes all a shop has into one file, as it is at one moment, while the shop goes on; then reads the whole file back.
 * It is PostgreSQL's own archive format, and only takes its name once it is good.
 *
 * @throws Error in one line where the file is there already, or where what was written does not read back
 */
export async function backUp({ url, bin, file }) {
  if (existsSync(file)) throw new Error(`${file} is there already; a backup is never written over.`);
  // names, figures and addresses of a whole shop: its owner's, and nobody else's
  mkdirSync(dirname(file), { recursive: true, mode: OWNERS_FOLDER });
  const part = `${file}.part`;
  rmSync(part, { force: true });
  try {
    writeFileSync(part, '', { mode: OWNERS_FILE });
    chmodSync(part, OWNERS_FILE);
    run(bin, 'pg_dump', ['--format=custom', '--no-owner', '--no-privileges', '--file', part], url);
    const [kept, there] = [tablesIn(bin, part), await tablesOf(url)];
    const missing = there.filter((table) => !kept.includes(table));
    if (missing.length > 0) throw new Error(`The backup lacks ${missing.join(', ')}; it was not kept.`);
    // every row of it is unpacked once, so that a file cut short or spoilt is found out now
    run(bin, 'pg_restore', ['--file', '/dev/null', part]);
    renameSync(part, file);
  } finally {
    rmSync(part, { force: true });
  }
  return { bytes: statSync(file).size };
}

const OWNERS_FOLDER = 0o700;
const OWNERS_FILE = 0o600;

/**
 * Opens a backup and reads it back, into a database of its own that is thrown away: a file that is there, and cannot be restored, is
 * no backup.
 *
 * @returns {Promise<{ engines: number, builds: number, readings: number }>} what is in it
 * @throws Error in one line where it is none, is not whole, or is of a newer program
 */
export async function checkBackup({ url, bin, file, migrations, migrate }) {
  refuseNewer(bin, file, migrations);
  const at = (database) => Object.assign(new URL(url), { pathname: `/${database}` }).href;
  const name = `zero_lash_check_${process.pid}`;
  await ask(at('postgres'), `create database "${name}"`);
  try {
    putInto(bin, file, at(name));
    await migrate(at(name));
    const [counts] = await ask(
      at(name),
      `select (select count(*) from engines)::int as engines, (select count(*) from builds)::int as builds,
         (select count(*) from readings)::int as readings`,
    );
    return counts;
  } finally {
    await ask(at('postgres'), `drop database if exists "${name}"`);
  }
}

function putInto(bin, file, url) {
  run(
    bin,
    'pg_restore',
    ['--exit-on-error', '--single-transaction', '--no-owner', '--no-privileges', file],
    url,
  );
}

function refuseNewer(bin, file, migrations) {
  const newer = versionsIn(bin, file).filter((name) => !migrations.includes(name));
  if (newer.length > 0)
    throw new Error(
      `${file} was made by a newer Zero Lash (${newer.join(', ')}). Use that one to restore it.`,
    );
}

/** The migrations a backup was made with, in order. */
function versionsIn(bin, file) {
  if (!existsSync(file)) throw new Error(`There is no ${file}.`);
  let tables;
  try {
    tables = tablesIn(bin, file);
  } catch {
    throw new Error(`${file} is no backup, or not a whole one.`);
  }
  if (!tables.includes(VERSIONS)) throw new Error(`${file} is no backup of a shop.`);
  const rows = run(bin, 'pg_restore', ['--data-only', `--table=${VERSIONS}`, '--file=-', file]);
  const [, copied = ''] = /^COPY [^\n]*\n([^]*?)^\\\.$/m.exec(rows) ?? [];
  return copied
    .split('\n')
    .filter(Boolean)
    .map((row) => row.split('\t')[1]);
}

/** A server that was just closed takes a moment to be gone. */
const GONE_WITHIN_MS = 3000;
const LOOK_MS = 50;

/** How many are still connected to a database, once those had time to go that go anyway. */
async function connectionsOf(admin, name) {
  const until = Date.now() + GONE_WITHIN_MS;
  for (;;) {
    const [{ others }] = await ask(
      admin,
      'select count(*)::int as others from pg_stat_activity where datname = $1',
      [name],
    );
    if (others === 0 || Date.now() > until) return others;
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

/**
 * Puts a backup where a shop's database is. It is read into a database of its own first, and brought to this program's
 * newest migration; only what came in whole takes the shop's place. What stood there before is kept under another name.
 *
 * @param {{ url: string, bin: string, file: string, over?: boolean, migrations: readonly string[], migrate: (url: string) => Promise<void> }} given
 *   `over` allows it to take the place of a shop that is not empty; `migrations` are those this program knows
 * @returns {Promise<{ before: string | null }>} the name under which what stood there is kept
 * @throws Error in one line where the file, or what stands there, does not allow it; nothing is changed then
 */
export async function restore({ url, bin, file, over = false, migrations, migrate }) {
  refuseNewer(bin, file, migrations);
  const name = decodeURIComponent(new URL(url).pathname.slice(1));
  const at = (database) => Object.assign(new URL(url), { pathname: `/${database}` }).href;
  const rows = await ask(url, `select pg_catalog.current_database()`).then(() => tablesOf(url));
  if (rows.length > 0 && !over)
    throw new Error(
      `${name} is not empty. --over puts the backup in its place, and keeps what is there under another name.`,
    );
  const others = await connectionsOf(at('postgres'), name);
  if (others > 0) throw new Error(`The shop is open (${others} connections). Close it first.`);
  const coming = `${name}_coming`;
  await ask(at('postgres'), `drop database if exists "${coming}"`);
  await ask(at('postgres'), `create database "${coming}"`);
  try {
    putInto(bin, file, at(coming));
    await migrate(at(coming));
  } catch (error) {
    await ask(at('postgres'), `drop database if exists "${coming}"`);
    throw error;
  }
  const before = `${name}_before_${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`;
  // both or neither: at no moment is there no shop under its name
  await askAll(at('postgres'), [
    `alter database "${name}" rename to "${before}"`,
    `alter database "${coming}" rename to "${name}"`,
  ]);
  if (rows.length > 0) return { before };
  await ask(at('postgres'), `drop database "${before}"`);
  return { before: null };
}
