import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { ensureBuilt } from './build.mjs';
import { ensurePackages, ROOT } from './packages.mjs';
import { ensureChromium, ensurePostgres } from './system.mjs';

const RESULTS = `${ROOT}.data/results`;
const counts = { passed: 0, failed: 0 };

function run(name, command, args, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const child = spawn(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  return new Promise((resolve) => {
    child.once('error', () => resolve(false));
    child.once('close', (code) => resolve(code === 0));
  });
}

/** Runs what needs nothing of one another side by side, and shows what each said once it is over. */
async function sideBySide(steps) {
  await Promise.all(
    steps.map(async ([name, script]) => {
      const child = spawn('npm', ['run', '--silent', script], {
        cwd: ROOT,
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      const said = [];
      for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk));
      const fine = await new Promise((resolve) => {
        child.once('error', () => resolve(false));
        child.once('close', (code) => resolve(code === 0));
      });
      counts[fine ? 'passed' : 'failed'] += 1;
      process.stdout.write(`\n== ${name}${fine ? '' : ', failed'}\n${Buffer.concat(said)}`);
    }),
  );
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

// what looks at the text alone goes beside the units, which wait for their databases half of their time
const looked = sideBySide([
  ['types', 'types'],
  ['lint', 'lint'],
  ['format', 'format:check'],
]);

const units = `${RESULTS}/units.json`;
const unitsFine = await run('unit and server tests', 'npx', [
  ...['vitest', 'run', '--reporter=default', '--reporter=json'],
  `--outputFile.json=${units}`,
]);
count(unitsFine, units, (report) => [report.numPassedTests, report.numFailedTests]);
await looked;

process.stdout.write('\n== build\n');
ensureBuilt();

const journeys = `${RESULTS}/journeys.json`;
const journeysFine = await run(
  'browser journeys',
  'npx',
  ['playwright', 'test', '-c', 'e2e/playwright.config.ts'],
  { PLAYWRIGHT_JSON_OUTPUT_NAME: journeys },
);
count(journeysFine, journeys, ({ stats }) => [stats.expected + stats.flaky, stats.unexpected]);

process.stdout.write(`\n${counts.passed} passed, ${counts.failed} failed\n`);
process.exitCode = counts.failed === 0 ? 0 : 1;
