import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { stop } from './packages.mjs';

const isRoot = process.getuid?.() === 0;

function install(name) {
  if (!isRoot) stop(`Install ${name} first: sudo apt-get install ${name}`);
  process.stderr.write(`Installing ${name} from Debian’s packages…\n`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const args of [
    ['update', '-qq'],
    ['install', '-y', '-qq', '--no-install-recommends', name],
  ]) {
    const run = spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'pipe'] });
    if (run.status !== 0) stop(`apt-get ${args.join(' ')} failed: ${run.stderr}`);
  }
}

function newestPostgres() {
  const home = '/usr/lib/postgresql';
  if (!existsSync(home)) return null;
  const versions = readdirSync(home)
    .filter((version) => existsSync(`${home}/${version}/bin/initdb`))
    .sort((a, b) => Number(b) - Number(a));
  return versions.length > 0 ? `${home}/${versions[0]}/bin` : null;
}

/** The folder of PostgreSQL’s programs, installed first where it is missing. */
export function ensurePostgres() {
  if (!newestPostgres()) install('postgresql');
  return newestPostgres() ?? stop('PostgreSQL was installed but initdb is not under /usr/lib/postgresql.');
}

/** The library that gives a program another time, installed first where it is missing. */
export function ensureFaketime() {
  const find = () =>
    ['x86_64-linux-gnu', 'aarch64-linux-gnu']
      .map((machine) => `/usr/lib/${machine}/faketime/libfaketime.so.1`)
      .find((path) => existsSync(path));
  if (!find()) install('faketime');
  return find() ?? stop('faketime was installed but its library is not under /usr/lib.');
}

/** Debian’s Chromium, installed first where it is missing. */
export function ensureChromium() {
  const path = '/usr/bin/chromium';
  if (!existsSync(path)) install('chromium');
  return path;
}
