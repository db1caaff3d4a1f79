import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { ROOT } from './packages.mjs';

/**
 * Starts the server as a process of its own.
 *
 * @param {Record<string, string>} env what it is told, DATABASE_URL and WEB_ROOT first of all
 * @param {'inherit' | 'pipe'} [output] where its output goes
 */
export function startServer(env, output = 'inherit') {
  return spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', output, 'inherit'],
  });
}

/** Starts the simulated gauge as a process of its own. */
export function startGauge(port, output = 'ignore') {
  return spawn(process.execPath, ['--import', 'tsx', 'server/gauges/simulate.ts'], {
    cwd: ROOT,
    env: { ...process.env, GAUGE_PORT: String(port) },
    stdio: ['ignore', output, output],
  });
}

/** Starts the simulated meter feed that ships with the program. */
export function startMeters(port, output = 'ignore') {
  return spawn(process.execPath, ['--import', 'tsx', 'server/usage/simulate.ts'], {
    cwd: ROOT,
    env: { ...process.env, METER_PORT: String(port) },
    stdio: ['ignore', output, output],
  });
}

/** Finds a port on loopback that nobody uses now. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
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
