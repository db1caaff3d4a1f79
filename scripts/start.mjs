import { ensureBuilt } from './build.mjs';
import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages, stop } from './packages.mjs';
import { startGauge, startMeters, startServer } from './server.mjs';
import { keepReviving, keepRunning, toldToStop } from './supervise.mjs';

const LOOK_AT_DATABASE_MS = 2000;

const known = new Set(['--empty', '--share']);
const unknown = process.argv.slice(2).find((argument) => !known.has(argument));
if (unknown)
  stop(
    `start does not know ${unknown}; it takes --empty (no demo world) and --share (for tablets on this network).`,
  );
const empty = process.argv.includes('--empty');

const told = toldToStop();
ensurePackages();
const cluster = await startCluster('.data/postgres');
const url = await ensureDatabase(cluster, empty ? 'zero_lash_empty' : 'zero_lash').catch((error) => {
  cluster.stop();
  return stop(error.message);
});
const leaveDatabase = keepReviving(cluster.revive, LOOK_AT_DATABASE_MS);
const env = {
  DATABASE_URL: url,
  WEB_ROOT: ensureBuilt(),
  ZERO_LASH_DEMO: empty ? 'no' : 'yes',
  ...(empty ? {} : { DEMO_METERS: '127.0.0.1:4529' }),
  ...(process.argv.includes('--share') ? { ZERO_LASH_SHARE: 'yes' } : {}),
};
const server = keepRunning('The server', () => startServer(env));
// the demo's gauge; where one runs already, that one is used
const gauge = empty
  ? null
  : keepRunning(
      'The simulated gauge',
      () => startGauge(4519),
      () => undefined,
    );
const meters = empty
  ? null
  : keepRunning(
      'The simulated meter feed',
      () => startMeters(4529),
      () => undefined,
    );
const code = await Promise.race([server.ended, told.then(() => 0)]);
leaveDatabase();
await Promise.all([server.stop(), gauge?.stop(), meters?.stop()]);
cluster.stop();
process.exit(code);
