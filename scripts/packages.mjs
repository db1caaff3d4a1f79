import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The project's own folder. */
export const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Installs the npm packages of the lock file, unless they are there already. */
export function ensurePackages() {
  const installed = `${ROOT}node_modules/.package-lock.json`;
  const wanted = `${ROOT}package-lock.json`;
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(wanted).mtimeMs - 2000) return;
  process.stderr.write('Installing packages…\n');
  const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel', 'error'], {
    cwd: ROOT,
    stdio: ['ignore', 2, 2],
  });
  if (run.status !== 0) stop('The npm packages could not be installed; npm’s own message is above.');
}

/**
 * Says in one line why nothing can go on, and ends.
 *
 * @returns {never}
 */
export function stop(message) {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}
