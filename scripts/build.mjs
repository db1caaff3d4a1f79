import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { ROOT, stop } from './packages.mjs';

const SOURCES = ['web', 'contract', 'core', 'package-lock.json'];
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

/** Builds the web application where its sources are newer than what was built; gives the folder it is in. */
export function ensureBuilt() {
  const dist = `${ROOT}web/dist`;
  const built = `${dist}/index.html`;
  const sources = Math.max(...SOURCES.map((name) => newest(`${ROOT}${name}`)));
  if (existsSync(built) && statSync(built).mtimeMs >= sources) return dist;
  process.stderr.write('Building the application…\n');
  const run = spawnSync(`${ROOT}node_modules/.bin/vite`, ['build', '--logLevel', 'warn'], {
    cwd: `${ROOT}web`,
    stdio: ['ignore', 2, 2],
  });
  if (run.status !== 0) stop('The application could not be built; the message is above.');
  compress(dist);
  return dist;
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
