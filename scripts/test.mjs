import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { ensureBuilt } from './build.mjs';
import { ensurePackages, ROOT } from './packages.mjs';
import { ensureChromium, ensurePostgres } from './system.mjs';

const RESULTS = `${ROOT}.data/results`;
const counts = { passed: 0, failed: 0 };

function run(name, command, args, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const { status } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  return status === 0;
}

function step(name, script) {
  const fine = run(name, 'npm', ['run', '--silent', script]);
  counts[fine ? 'passed' : 'failed'] += 1;
}

/** Adds what a test runner counted; one that ended badly without a count is a failure too. */
function count(fine, file, read) {
  let failed = 1;
  try {
    const [passed, failures] = read(JSON.parse(readFileSync(file, 'utf8')));
    counts.passed += passed;
    failed = failures;
  } catch (error) {
    process.stderr.write(`No count in ${file}: ${error.message}\n`);
  }
  counts.failed += fine ? failed : Math.max(1, failed);
}

ensurePackages();
ensurePostgres();
process.env.CHROMIUM ??= ensureChromium();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

step('format', 'format:check');
step('lint', 'lint');
step('types', 'types');

const units = `${RESULTS}/units.json`;
const unitsFine = run('unit and server tests', 'npx', [
  ...['vitest', 'run', '--reporter=default', '--reporter=json'],
  `--outputFile.json=${units}`,
]);
count(unitsFine, units, (report) => [report.numPassedTests, report.numFailedTests]);

process.stdout.write('\n== build\n');
ensureBuilt();

const journeys = `${RESULTS}/journeys.json`;
const journeysFine = run(
  'browser journeys',
  'npx',
  ['playwright', 'test', '-c', 'e2e/playwright.config.ts'],
  { PLAYWRIGHT_JSON_OUTPUT_NAME: journeys },
);
count(journeysFine, journeys, ({ stats }) => [stats.expected + stats.flaky, stats.unexpected]);

process.stdout.write(`\n${counts.passed} passed, ${counts.failed} failed\n`);
process.exitCode = counts.failed === 0 ? 0 : 1;
