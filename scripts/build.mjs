import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { ROOT, stop } from './packages.mjs';

const OF_BOTH = ['contract', 'core', 'package-lock.json'];
const IGNORED = new Set(['node_modules', 'dist', 'test']);

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(
    0,
    ...readdirSync(path)
      .filter((name) => !IGNORED.has(name))
      .map((name) => newest(join(path, name))),
  );
}

/**
 * Builds a part of the program where its sources are newer than what was built. It is marked as built last of all: what was ended in the
 * middle is built again.
 *
 * @param part the workspace's folder
 * @param finish what is done to what was built, before it counts as built
 * @returns the folder it is in
 */
function build(part, finish = () => undefined) {
  const dist = `${ROOT}${part}/dist`;
  const built = `${dist}/.built`;
  const sources = Math.max(...[part, ...OF_BOTH].map((name) => newest(`${ROOT}${name}`)));
  if (existsSync(built) && statSync(built).mtimeMs >= sources) return dist;
  process.stderr.write(`Building the ${part === 'web' ? 'application' : 'server'}…\n`);
  const run = spawnSync(`${ROOT}node_modules/.bin/vite`, ['build', '--logLevel', 'warn'], {
    cwd: `${ROOT}${part}`,
    stdio: ['ignore', 2, 2],
  });
  if (run.status !== 0) stop('It could not be built; the message is above.');
  finish(dist);
  writeFileSync(built, '');
  return dist;
}

/** Builds the web application where it is stale; gives the folder it is in. */
export const ensureBuilt = () => build('web', compress);

/** Builds the server where it is stale; gives the folder it is in. */
export const ensureServerBuilt = () => build('server');

const COMPRESSIBLE = new Set(['.js', '.css', '.html', '.svg']);

/** Lays a compressed copy beside each text file, so that the server compresses nothing while somebody waits. */
function compress(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) compress(path);
    else if (COMPRESSIBLE.has(extname(name))) {
      const content = readFileSync(path);
      writeFileSync(`${path}.br`, brotliCompressSync(content));
      writeFileSync(`${path}.gz`, gzipSync(content));
    }
  }
}
