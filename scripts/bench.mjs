import { ensureBuilt } from './build.mjs';
import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages } from './packages.mjs';
import { addressOf, startServer, stopped } from './server.mjs';
import { ensureChromium } from './system.mjs';

const ENGINES = Number(process.env.BENCH_ENGINES ?? 10_000);
const ROUNDS_EACH = 13;

const percent = (share) => `${(share * 100).toFixed(1)} %`;

ensurePackages();
const executablePath = ensureChromium();
const { benchForecasts } = await import('./bench/forecast.mjs');
const { benchCrankStops } = await import('./bench/crankStops.mjs');
const { benchFirstPage } = await import('./bench/firstPage.mjs');
const { addManyEngines } = await import('./bench/manyEngines.mjs');
const { printTable } = await import('./bench/table.mjs');
const { benchRechecks } = await import('./bench/rechecks.mjs');
const { benchShimPlan } = await import('./bench/shimPlan.mjs');
const { benchOwnerSheet } = await import('./bench/ownerSheet.mjs');
const { benchRebuilds } = await import('./bench/rebuilds.mjs');
const { benchTaps } = await import('./bench/tap.mjs');
const { benchReads } = await import('./bench/today.mjs');
const { benchTwoTablets } = await import('./bench/twoTablets.mjs');
const { benchWear } = await import('./bench/wear.mjs');
const { benchWheel } = await import('./bench/wheel.mjs');

const cluster = await startCluster(`.data/bench-${process.pid}`, { throwaway: true });
let server;
try {
  const url = await ensureDatabase(cluster, 'bench');
  server = startServer(
    { DATABASE_URL: url, WEB_ROOT: ensureBuilt(), ZERO_LASH_DEMO: 'yes', PORT: '0' },
    'pipe',
  );
  const base = await addressOf(server);
  const size = await addManyEngines(url, ENGINES, ROUNDS_EACH);
  process.stdout.write(`${size.engines} engines, ${size.readings} readings\n`);
  const signIn = async (name, passphrase) => {
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
  };
  const viewer = await signIn('Petra Quell', 'only-looking-on');
  const bench = await signIn('Tobin Hask', 'two-full-turns');
  const lead = await signIn('Ilse Marrand', 'brass-and-feeler');
  const reads = await benchReads(base, viewer.cookie, await addressesOf(base, viewer.cookie));
  const anew = await benchRechecks(base, viewer.cookie);
  const chromium = {
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  };
  const page = await benchFirstPage(base, viewer.inBrowser, chromium);
  const wheel = await benchWheel(base, viewer.inBrowser, chromium);
  const stops = await benchCrankStops();
  const forecasts = await benchForecasts();
  const plan = await benchShimPlan();
  const rebuilds = await benchRebuilds();
  const owner = await benchOwnerSheet(base, viewer.cookie);
  const wear = await benchWear(base, bench.cookie, lead.cookie, bench.inBrowser, chromium);
  const taps = await benchTaps(base, bench.cookie, bench.inBrowser, chromium);
  const two = await benchTwoTablets(base, bench.cookie, bench.inBrowser, chromium);
  printTable([
    ...reads.reads.map(({ name, perSecond, ratio, p99 }) => ({
      what: `${name}: ${perSecond.toFixed(0)} requests a second at 20 connections, bare “select 1” ${reads.bare.toFixed(0)}`,
      result: `${ratio.toFixed(2)} of it, p99 ${p99.toFixed(0)} ms`,
      aim: 'at least 0.30, under 100 ms',
      met: ratio >= 0.3 && p99 < 100,
    })),
    {
      what: 'First page: JavaScript transferred, gzipped',
      result: `${page.kB.toFixed(0)} kB`,
      aim: 'under 260 kB',
      met: page.kB < 260,
    },
    {
      what: `First page: usable in ${page.ms.toFixed(0)} ms, empty page ${page.bareMs.toFixed(0)} ms`,
      result: `${page.ratio.toFixed(2)} times`,
      aim: 'under 1.60',
      met: page.ratio < 1.6,
    },
    {
      what: `Fewest stops of a V12 with 36 points at any angle (${stops.count}): ${stops.ms.toFixed(2)} ms, brute force over every degree ${stops.bruteMs.toFixed(0)} ms`,
      result: `${stops.ratio.toFixed(0)} times faster`,
      aim: 'over 1',
      met: stops.ratio > 1,
    },
    {
      what: `Fewest of 72 marks for a V12 with twelve brake rockers (${stops.marksCount}): ${stops.marksMs.toFixed(2)} ms, the same brute force`,
      result: `${stops.marksRatio.toFixed(0)} times faster`,
      aim: 'over 1',
      met: stops.marksRatio > 1,
    },
    {
      what: 'A shim plan over 48 points, 400 pieces and 60 sizes to order: median',
      result: `${plan.planMs.toFixed(1)} ms`,
      aim: 'under 16 ms',
      met: plan.planMs < 16,
    },
    {
      what: `Its assignment: ${plan.ms.toFixed(1)} ms; the munkres-js package on the same costs, with equal totals, ${plan.munkresMs.toFixed(0)} ms`,
      result: `${plan.ratio.toFixed(0)} times faster`,
      aim: 'at least 20',
      met: plan.ratio >= 20,
    },
    ...rebuilds.plans.flatMap(({ name, again, bought, passedOut }) => [
      {
        what: `400 simulated engines of 16 valves, drawer ${name}: a second strip-down needed: by hand ${percent(rebuilds.hand.again)}`,
        result: percent(again),
        aim: 'at most a tenth of that',
        met: again <= rebuilds.hand.again / 10,
      },
      {
        what: `The same, drawer ${name}: shims bought an engine: by hand ${rebuilds.hand.bought.toFixed(1)}`,
        result: bought.toFixed(1),
        aim: 'under half of that',
        met: bought < rebuilds.hand.bought / 2,
      },
      {
        what: `The same, drawer ${name}: of 1000 valves passed truly out of their band: by hand ${rebuilds.hand.passedOut.toFixed(0)}`,
        result: passedOut.toFixed(1),
        aim: 'under 2',
        met: passedOut < 2,
      },
    ]),
    {
      what: `Forecasts of ${forecasts.points} points seen five times each; a straight line through the same looks ${forecasts.lineMs.toFixed(1)} ms`,
      result: `${forecasts.ms.toFixed(0)} ms, ${forecasts.ratio.toFixed(0)} times that`,
      aim: 'under 1000 ms',
      met: forecasts.ms < 1000,
    },
    ...anew.map(({ name, ms, bareMs, most }) => ({
      what: `${name}, read anew each time: p95; a bare “select 1” ${bareMs.toFixed(1)} ms`,
      result: `${ms.toFixed(0)} ms, ${(ms / bareMs).toFixed(0)} times that`,
      aim: `under ${most} ms`,
      met: ms < most,
    })),
    {
      what: 'The owner’s sheet of a V12 with 24 valves, as a PDF: median',
      result: `${owner.ms.toFixed(0)} ms`,
      aim: 'under 500 ms',
      met: owner.ms < 500,
    },
    {
      what: 'Today’s data while twenty of them are made: p99',
      result: `${owner.p99.toFixed(0)} ms`,
      aim: 'under 100 ms',
      met: owner.p99 < 100,
    },
    {
      what: 'Crank wheel of 16 valves turned a degree a frame: frames over 20 ms',
      result: `${(wheel.late * 100).toFixed(1)} %`,
      aim: 'under 5 %',
      met: wheel.late < 0.05,
    },
    {
      what: `Tap to drawn verdict, 16 valves, processor slowed four times: p95; an empty page ${taps.bareP95.toFixed(0)} ms`,
      result: `${taps.p95.toFixed(0)} ms`,
      aim: 'under 50 ms',
      met: taps.p95 < 50,
    },
    {
      what: 'Components rendered for a tap, from the finger to the answer of the server and the news of it',
      result: taps.rendered.toFixed(0),
      aim: 'under 120',
      met: taps.rendered < 120,
    },
    {
      what: `A wear sheet of 32 valves with ${wear.readings} readings, opened in ${wear.openMs} ms: from a key to what it comes to, p95 of ${wear.keys}`,
      result: `${wear.p95.toFixed(0)} ms`,
      aim: 'under 50 ms',
      met: wear.p95 < 50,
    },
    {
      what: 'Bytes answered to a figure of it, the longest',
      result: `${wear.bytes}`,
      aim: 'under 1000',
      met: wear.bytes < 1000,
    },
    {
      what: 'Taps a point: a 16-valve round in spec by go and no-go, and by tries',
      result: `${taps.taps['go-no-go']} and ${taps.taps.steps}`,
      aim: 'at most 2 and 5',
      met: taps.taps['go-no-go'] <= 2 && taps.taps.steps <= 5,
    },
    {
      what: `A tap drawn on a second tablet, half of them within ${two.median.toFixed(0)} ms: the last`,
      result: `${two.worst.toFixed(0)} ms`,
      aim: 'under 1000 ms',
      met: two.worst < 1000,
    },
  ]);
} finally {
  if (server) await stopped(server);
  cluster.stop();
}

/** What is read under load: Today, lists, a search, one engine and one build of those that were added. */
async function addressesOf(base, cookie) {
  const answer = await fetch(`${base}/api/engines?search=b-77`, { headers: { cookie } });
  const [engine] = (await answer.json()).engines;
  return {
    Today: '/api/today',
    'The list of engines': '/api/engines',
    'The list by recheck': '/api/engines?sort=recheck',
    'A search of engines': '/api/engines?search=fan%20b-77',
    'One engine': `/api/engines/${engine.id}`,
    'One build': `/api/builds/${engine.buildId}`,
    'Its rounds with their readings': `/api/builds/${engine.buildId}/rounds`,
    'The spec sheets': '/api/sheets',
  };
}
