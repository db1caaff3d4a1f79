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
 * Builds a part of the program where its sources are newer than what was built.
 *
 * @param part the workspace's folder
 * @param mark the file of it that is there once it was built
 * @returns whether it was built now
 */
function build(part, mark) {
  const built = `${ROOT}${part}/dist/${mark}`;
  const sources = Math.max(...[part, ...OF_BOTH].map((name) => newest(`${ROOT}${name}`)));
  if (existsSync(built) && statSync(built).mtimeMs >= sources) return false;
  process.stderr.write(`Building the ${part === 'web' ? 'application' : 'server'}…\n`);
  const run = spawnSync(`${ROOT}node_modules/.bin/vite`, ['build', '--logLevel', 'warn'], {
    cwd: `${ROOT}${part}`,
    stdio: ['ignore', 2, 2],
  });
  if (run.status !== 0) stop('It could not be built; the message is above.');
  return true;
}

/** Builds the web application where it is stale; gives the folder it is in. */
export function ensureBuilt() {
  const dist = `${ROOT}web/dist`;
  if (build('web', 'index.html')) compress(dist);
  return dist;
}

/** Builds the server where it is stale; gives the folder it is in. */
export function ensureServerBuilt() {
  build('server', 'main.mjs');
  return `${ROOT}server/dist`;
}

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
