import { ensureBuilt } from './build.mjs';
import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages } from './packages.mjs';
import { addressOf, startServer, stopped } from './server.mjs';
import { stopsAtEnd } from './supervise.mjs';
import { ensureChromium } from './system.mjs';

const ENGINES = Number(process.env.BENCH_ENGINES ?? 10_000);
const ROUNDS_EACH = 13;
/** Whole runs, one after another, and turns of each part in each. */
const RUNS = Number(process.env.BENCH_RUNS ?? 3);
const TURNS = 5;

ensurePackages();
const executablePath = ensureChromium();
const { chromium: launcher } = await import('@playwright/test');
const { addManyEngines } = await import('./bench/manyEngines.mjs');
const { judged } = await import('./bench/rows.mjs');
const { ten } = await import('./bench/ten.mjs');
const { printTable } = await import('./bench/table.mjs');
/** Each part, with the names of its rows: one is measured alone by its name, with what is measured with it. */
const PARTS = [
  (await import('./bench/today.mjs')).reads,
  (await import('./bench/firstPage.mjs')).firstPage,
  (await import('./bench/firstPage.mjs')).otherPages,
  (await import('./bench/crankStops.mjs')).crankStops,
  (await import('./bench/shimPlan.mjs')).shimPlans,
  (await import('./bench/rebuilds.mjs')).rebuilds,
  (await import('./bench/forecast.mjs')).forecasts,
  (await import('./bench/rechecks.mjs')).rechecks,
  (await import('./bench/ownerSheet.mjs')).ownerSheet,
  (await import('./bench/wheel.mjs')).wheel,
  (await import('./bench/tap.mjs')).benchTaps,
  (await import('./bench/wear.mjs')).wear,
  (await import('./bench/keys.mjs')).columns,
  (await import('./bench/twoTablets.mjs')).twoTablets,
];
const named = process.argv.slice(2);
const say = (text) => process.stderr.write(`${text}\n`);

const all = stopsAtEnd();
try {
  const cluster = await startCluster(`.data/bench-${process.pid}`, { throwaway: true });
  all.add(() => cluster.stop());
  const url = await ensureDatabase(cluster, 'bench');
  const server = startServer(
    {
      ...{ DATABASE_URL: url, WEB_ROOT: ensureBuilt(), ZERO_LASH_DEMO: 'yes', PORT: '0' },
      ZERO_LASH_BARE_ROUTE: 'yes',
    },
    'pipe',
  );
  all.add(() => stopped(server));
  const base = await addressOf(server);
  const size = await addManyEngines(url, ENGINES, ROUNDS_EACH);
  process.stdout.write(`${size.engines} engines, ${size.readings} readings\n`);
  const browser = await launcher.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
    ...{ handleSIGINT: false, handleSIGTERM: false, handleSIGHUP: false },
  });
  all.add(() => browser.close());
  const shop = {
    ...{ base, url, browser, atEnd: all.add },
    viewer: await signIn(base, 'Petra Quell', 'only-looking-on'),
    bench: await signIn(base, 'Tobin Hask', 'two-full-turns'),
    lead: await signIn(base, 'Ilse Marrand', 'brass-and-feeler'),
  };
  if (named.includes('ten')) {
    const { size: grown, rows } = await ten(shop, { engines: ENGINES, roundsEach: ROUNDS_EACH, say });
    process.stdout.write(`then ${grown.engines} engines, ${grown.readings} readings\n`);
    printTable(rows);
    await all.end();
    process.exit();
  }
  const parts = [];
  for (const open of PARTS) {
    const part = await open(shop);
    const rows = part.rows.filter(({ name }) => named.length === 0 || named.includes(name));
    if (rows.length > 0) parts.push({ ...part, name: open.name, rows, runs: [] });
  }
  for (let run = 1; run <= RUNS; run += 1)
    for (const part of parts) {
      if (part.same && run > 1) continue;
      const turns = [];
      const from = Date.now();
      for (let turn = 0; turn < (part.same ? 1 : TURNS); turn += 1) turns.push(await part.turn());
      part.runs.push(turns);
      say(`Run ${run} of ${RUNS}: ${part.name}, ${((Date.now() - from) / 1000).toFixed(0)} s`);
    }
  const rows = parts.flatMap((part) => part.rows.map((row) => judged(row, part.runs)));
  if (rows.length === 0) throw new Error(`No row is called ${named.join(', ')}.`);
  printTable(rows);
  say(
    `Each figure: the middle of ${RUNS} runs, each the middle of its ${TURNS} turns (the least to the greatest turn).`,
  );
} finally {
  await all.end();
}

/** Signs somebody of the demo shop in: their cookie as a header, and as a browser has it. */
async function signIn(base, name, passphrase) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, passphrase }),
  });
  // beside the session's there is the device's own
  const set = answer.headers.getSetCookie().find((each) => each.startsWith('zero_lash='));
  const cookie = set.split(';')[0];
  const [key, value] = cookie.split(/=(.*)/);
  return { cookie, inBrowser: { name: key, value, url: base } };
}
