import { ensureBuilt, ensureServerBuilt } from '../scripts/build.mjs';
import { ensureDatabase, startCluster } from '../scripts/database.mjs';
import { addressOf, freePort, startGauge, startMeters, startServer, stopped } from '../scripts/server.mjs';

/** The database with the demo world in it, of which copies are made. */
const DEMO = 'demo';

/** Starts a throwaway database, a server with the demo world and its gauge for the journeys; ends all of them after. */
export default async function openShop() {
  ensureServerBuilt();
  const cluster = await startCluster(`.data/journeys-${process.pid}`, { throwaway: true });
  const gaugePort = await freePort();
  const gauge = startGauge(gaugePort);
  process.env.DEMO_GAUGE = `127.0.0.1:${gaugePort}`;
  const meterPort = await freePort();
  const meters = startMeters(meterPort);
  process.env.DEMO_METERS = `127.0.0.1:${meterPort}`;
  process.env.MAILBOX = `.data/mailbox-${process.pid}`;
  process.env.CLUSTER_URL = cluster.url('postgres');
  const env = { WEB_ROOT: ensureBuilt(), ZERO_LASH_DEMO: 'yes', PORT: '0' };
  // the demo world is loaded once: every shop begins as a copy of it
  const loading = startServer({ ...env, DATABASE_URL: await ensureDatabase(cluster, DEMO) }, 'pipe');
  await addressOf(loading);
  await stopped(loading);
  const server = startServer(
    { ...env, DATABASE_URL: await ensureDatabase(cluster, 'journeys', DEMO) },
    'pipe',
  );
  process.env.BASE_URL = await addressOf(server);
  return async () => {
    await Promise.all([stopped(gauge), stopped(meters), stopped(server)]);
    cluster.stop();
  };
}

/** A shop of a journey's own, whose server may be stopped and started again at the same address. */
export async function openOwnShop(
  name: string,
  demo: 'yes' | 'no' = 'yes',
  more: Readonly<Record<string, string>> = {},
) {
  const url = new URL(process.env.CLUSTER_URL!);
  const cluster = {
    url: (database: string) => Object.assign(new URL(url), { pathname: `/${database}` }).href,
  };
  const env = {
    DATABASE_URL: await ensureDatabase(cluster, name, demo === 'yes' ? DEMO : null),
    WEB_ROOT: ensureBuilt(),
    ZERO_LASH_DEMO: demo,
    PORT: String(await freePort()),
    ...more,
  };
  let server = startServer(env, 'pipe');
  let said = '';
  server.stdout!.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const base = await addressOf(server);
  return {
    base,
    /** what the server said when it opened, how to sign in first of all */
    said: () => said,
    stop: () => stopped(server),
    /** ends it in the middle of whatever it does */
    kill: async () => {
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGKILL');
      await ended;
    },
    start: async () => {
      server = startServer(env, 'pipe');
      await addressOf(server);
    },
  };
}
