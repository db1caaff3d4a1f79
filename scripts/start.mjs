import { ensureBuilt } from './build.mjs';
import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages, stop } from './packages.mjs';
import { startGauge, startServer, stopWithParent } from './server.mjs';

const known = new Set(['--empty']);
const unknown = process.argv.slice(2).find((argument) => !known.has(argument));
if (unknown) stop(`start does not know ${unknown}; it takes --empty (no demo world).`);
const empty = process.argv.includes('--empty');

ensurePackages();
const cluster = await startCluster('.data/postgres');
// the demo's gauge; where one runs already, that one is used
const gauge = empty ? null : startGauge(4519);
try {
  const url = await ensureDatabase(cluster, empty ? 'zero_lash_empty' : 'zero_lash');
  const server = startServer({
    DATABASE_URL: url,
    WEB_ROOT: ensureBuilt(),
    ZERO_LASH_DEMO: empty ? 'no' : 'yes',
  });
  process.exitCode = await stopWithParent(server);
} finally {
  gauge?.kill('SIGTERM');
  cluster.stop();
}
