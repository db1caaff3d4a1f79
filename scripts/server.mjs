import { spawn } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';
import { ensureServerBuilt } from './build.mjs';
import { ROOT } from './packages.mjs';

/**
 * Starts the server as a process of its own.
 *
 * @param {Record<string, string>} env what it is told, DATABASE_URL and WEB_ROOT first of all
 * @param {'inherit' | 'pipe'} [output] where its output goes
 * @param {'inherit' | 'pipe'} [errors] where it says what goes wrong
 */
export function startServer(env, output = 'inherit', errors = 'inherit') {
  return run('main', env, ['ignore', output, errors]);
}

/** Runs one of the server's programs, as it is built. */
function run(name, env, stdio) {
  return spawn(process.execPath, ['--enable-source-maps', `${ensureServerBuilt()}/${name}.mjs`], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio,
  });
}

/** Starts the simulated gauge as a process of its own. */
export function startGauge(port, output = 'ignore') {
  return run('gauges/simulate', { GAUGE_PORT: String(port) }, ['ignore', output, output]);
}

/** Starts the simulated meter feed that ships with the program. */
export function startMeters(port, output = 'ignore') {
  return run('usage/simulate', { METER_PORT: String(port) }, ['ignore', output, output]);
}

/** Below what a system hands out by itself (from 32768 on), so that no connection of another takes one meanwhile. */
const PORTS = { first: 20_000, last: 31_999 };
/** What a server takes beside its own: a shared one is encrypted at the next, and is made known at the one after. */
const PORTS_A_SERVER = 3;
const given = new Set();

/**
 * Finds a port on loopback that nobody uses now and that the system gives nobody else, whatever comes between this and
 * the server that takes it; the two after it are free too. It gives no port twice.
 * @returns {Promise<number>}
 * @example startServer({ PORT: String(await freePort()) })
 */
export async function freePort() {
  for (;;) {
    const strides = Math.floor((PORTS.last - PORTS.first) / PORTS_A_SERVER);
    const port = PORTS.first + randomInt(strides) * PORTS_A_SERVER;
    if (given.has(port)) continue;
    given.add(port);
    const each = Array.from({ length: PORTS_A_SERVER }, (_, after) => isFree(port + after));
    if ((await Promise.all(each)).every(Boolean)) return port;
  }
}

function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, () => probe.close(() => resolve(true)));
  });
}

/** Tells a server to stop and waits until it has. */
export function stopped(server) {
  if (server.exitCode !== null || server.signalCode !== null) return Promise.resolve();
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  return gone;
}

/** Waits until a server started with piped output says its address. */
export function addressOf(server) {
  return new Promise((resolve, reject) => {
    let said = '';
    server.stdout.on('data', (chunk) => {
      said += chunk;
      const match = /open at (http:\/\/\S+)/.exec(said);
      if (match) resolve(match[1]);
    });
    server.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${said}`)));
  });
}
