import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages } from './packages.mjs';
import { addressOf, freePort, startServer, stopped } from './server.mjs';
import { keepReviving, keepRunning, stopsAtEnd } from './supervise.mjs';

const KILLS_SECONDS = 150;
const PAIRS = 500;
const BAD_EACH = 40;
const RACES_EACH = 2;
const HOURS_REQUESTS = 12_000;
const CHANGES = Number(process.env.WITHSTAND_CHANGES ?? 3000);

ensurePackages();
const { register } = await import('tsx/esm/api');
register();
const { printTable } = await import('./bench/table.mjs');
const { killUnderWriting } = await import('./withstand/kills.mjs');
const { sameKeyTwice } = await import('./withstand/sameKey.mjs');
const { badRequests } = await import('./withstand/badRequests.mjs');
const { races } = await import('./withstand/races.mjs');
const { anHour } = await import('./withstand/hour.mjs');
const { wrongClocks } = await import('./withstand/clock.mjs');
const { ensureFaketime } = await import('./system.mjs');
const { fullDisk } = await import('./withstand/disk.mjs');
const { honestSignIns } = await import('./withstand/doors.mjs');
const { hangingMail } = await import('./withstand/mail.mjs');
const { lateEvidence } = await import('./withstand/late.mjs');
const { changedRecords } = await import('./withstand/records.mjs');
const { BENCH, LEAD, buildOf, caller, signIn } = await import('./withstand/shop.mjs');
const { routesOf } = await import('../server/routes.ts');
const { buildApp } = await import('../server/app.ts');
const { connect, migrate } = await import('../server/database.ts');
const { addPerson, ensureShop } = await import('../server/people/store.ts');
const { wouldTake } = await import('../server/records/take.ts');
const { lookThrough } = await import('../server/records/unpack.ts');
const { DEMO_SHEETS } = await import('../server/demo/sheets/index.ts');

const say = (text) => process.stderr.write(`${text}\n`);
const all = stopsAtEnd();
const named = process.argv.slice(2);
const broke = [];
try {
  // one that waits for the disk, as a shop's does, and is thrown away afterwards
  const cluster = await startCluster(`.data/withstand-${process.pid}`, { throwaway: true, durable: true });
  all.add(() => cluster.stop());
  all.add(keepReviving(cluster.revive, 500));
  const url = await ensureDatabase(cluster, 'withstand');
  const env = { DATABASE_URL: url, ZERO_LASH_DEMO: 'yes', LOG_LEVEL: 'silent' };
  const second = startServer({ ...env, PORT: '0' }, 'pipe');
  all.add(() => stopped(second));
  const there = await addressOf(second);
  const port = await freePort();
  const here = `http://127.0.0.1:${port}`;
  const first = keepRunning(
    'The server',
    () => startServer({ ...env, PORT: String(port) }, 'ignore'),
    () => undefined,
    {
      firstPauseMs: 50,
      longestPauseMs: 50,
    },
  );
  all.add(() => first.stop());
  await reached(here);
  const bench = await signIn(here, BENCH);
  const lead = await signIn(here, LEAD);
  const build = await buildOf(bench, 'Frost fan 7');
  const round = build.rounds.at(-1).id;

  const rows = [];
  /** Does one part, unless others were named. */
  const part = async (name, words, work) => {
    if (named.length > 0 && !named.includes(name)) return;
    say(words);
    rows.push(await work());
    await reached(here);
    await reached(there);
  };
  await part('kills', `Killing server and database under writing, ${KILLS_SECONDS} s…`, async () => {
    const points = ['1I', '1E', '2I', '2E', '3I', '3E'];
    const kills = await killUnderWriting({
      ...{ call: bench, round, points, server: first, cluster, url, seconds: KILLS_SECONDS },
    });
    return {
      what: `${kills.server} kills of the server and ${kills.database} of the database in ${KILLS_SECONDS} s, six hands writing: ${kills.sent} readings in ${kills.tries} tries`,
      result: `${kills.acknowledged} acknowledged, ${kills.there} there, ${kills.twice} twice`,
      aim: 'all, all, 0',
      met: kills.acknowledged === kills.sent && kills.there === kills.sent && kills.twice === 0,
    };
  });
  await part('keys', `One key at two servers, ${PAIRS} times…`, async () => {
    const elsewhere = caller(there, bench.cookie);
    const same = await sameKeyTwice({ here: bench, there: elsewhere, round, point: '4I', url, pairs: PAIRS });
    return {
      what: `One key at two servers at once, ${same.pairs} times`,
      result: `${same.agreed} gave one answer, ${same.rows} rows`,
      aim: `${same.pairs}, ${same.pairs}`,
      met: same.agreed === same.pairs && same.rows === same.pairs,
    };
  });
  await part('bad', 'Bad requests over every route…', async () => {
    const bad = await badRequests({ call: lead, routes: await listRoutes(url), each: BAD_EACH });
    broke.push(...bad.broke);
    return {
      what: `${bad.sent} bad requests over ${bad.routes} routes`,
      result: counts(bad.by),
      aim: 'no 5xx',
      met: bad.broke.length === 0,
    };
  });
  await part('races', 'Each kind of write against each other…', async () => {
    const raced = await races({ lead, bench, sheetBody: DEMO_SHEETS.sawSingle.body }, RACES_EACH);
    broke.push(...raced.broke);
    return {
      what: `${raced.kinds} kinds of write, each against each other: ${raced.pairs} pairs`,
      result: counts(raced.by),
      aim: 'no 5xx',
      met: raced.broke.length === 0,
    };
  });
  await part('hour', `${HOURS_REQUESTS} requests…`, async () => {
    const hour = await anHour({ call: bench, build, pid: first.child().pid, requests: HOURS_REQUESTS });
    return {
      what: `${hour.requests} requests at ten at once: ${counts(hour.by)}`,
      result: `${hour.before.toFixed(0)} MB before, ${hour.after.toFixed(0)} MB after`,
      aim: 'under 1.3 times',
      met: hour.after < hour.before * 1.3 && Object.keys(hour.by).join() === '2xx',
    };
  });
  await part('clock', 'Servers whose clock is two days wrong…', async () => {
    const clock = await wrongClocks({ url, here, library: ensureFaketime() });
    return {
      what: `${clock.written} readings by a server two days ahead, one two days behind (${clock.ahead.join(' and ')} s, by health) and one that is right, by turns`,
      result: `${clock.wrongDay} dated wrongly, the last stands in ${clock.lastStands} of ${clock.pairs}, ${clock.asked} of another day asked about`,
      aim: '0, all, all',
      met: clock.wrongDay === 0 && clock.lastStands === clock.pairs && clock.asked === clock.pairs,
    };
  });
  await part('disk', 'The disk of a database fills up, and is freed again…', async () => {
    const disk = await fullDisk({ atEnd: all.add });
    if (!disk) return { what: 'A full disk', result: 'nobody may make one here', aim: 'tried', met: false };
    return {
      what: `A disk full for 25 s under four hands writing: ${disk.sent} readings; answers ${counts(disk.by)}; health said ${counts(disk.told)}`,
      result: `${disk.acknowledged} acknowledged, ${disk.there} there, ${disk.twice} twice, ${disk.setAside} set aside`,
      aim: 'all, all, 0, 0',
      met: disk.acknowledged === disk.sent && disk.there === disk.sent && disk.twice + disk.setAside === 0,
    };
  });
  await part('records', `${CHANGES} records with one field changed…`, async () => {
    const answer = await fetch(`${here}/api/engines/${build.engine.id}/record`, {
      headers: { cookie: lead.cookie },
    });
    const other = connect(await ensureDatabase(cluster, 'elsewhere'));
    try {
      await migrate(other);
      await ensureShop(other, { name: 'Another shop', zone: 'UTC' });
      const { id } = await addPerson(other, { name: 'Lead', role: 'lead', passphraseHash: 'none' });
      const changed = await changedRecords({
        zip: new Uint8Array(await answer.arrayBuffer()),
        look: lookThrough,
        wouldTake: (zip, record) => wouldTake(other, { zip, record }, id),
        changes: CHANGES,
      });
      broke.push(...changed.broke);
      return {
        what: `${CHANGES} records of an engine with one field changed, taken into another shop`,
        result: counts(changed.by),
        aim: 'taken whole or refused by name',
        met: changed.broke.length === 0,
      };
    } finally {
      await other.destroy();
    }
  });
  await part('doors', 'Fifty people sign in at once…', async () => {
    const came = await honestSignIns({ here, there });
    return {
      what: `${came.people} people sign in at once, from one address, at two servers`,
      result: `${came.in} are in, the last after ${came.slowest.toFixed(1)} s`,
      aim: 'all',
      met: came.in === came.people,
    };
  });
  await part('mail', 'A mail server that hangs…', async () => {
    const { hung, worked, open, waiting, left, taken, ids } = await hangingMail({ url });
    return {
      what: `${waiting} letters to a mail server that takes the call and is silent; then it works`,
      result: `answered after ${hung.seconds.toFixed(1)} s, no transaction open for more than ${open.toFixed(1)} s; then ${taken.length} taken (${ids} different) in ${worked.seconds.toFixed(1)} s, ${left} left`,
      aim: 'in 15 s, 1 s, each once, 0',
      met: [hung.status === 200, hung.seconds < 15, open < 1, waiting > 0, left === 0].every(Boolean),
    };
  });
  await part('late', 'Late evidence after signatures…', async () => {
    const came = await lateEvidence({ url, bench, lead });
    return {
      what: `${came.sent} tight readings of proving that come in after ${came.engines} engines were signed off; a lead leaves ${came.dealtWith} of them as they were`,
      result: `${came.kept} kept and ${came.shown} shown beside ${came.signatures} signatures that stand, ${came.told} engines not to be run; then ${came.still}`,
      aim: 'all, all, all; those not dealt with',
      met:
        came.sent > 0 &&
        came.kept === came.sent &&
        came.shown === came.sent &&
        new Set([came.engines, came.signatures, came.told]).size === 1 &&
        came.quiet === came.dealtWith &&
        came.still === came.engines - came.dealtWith,
    };
  });
  printTable(rows);
  for (const each of broke.slice(0, 20)) say(`  ${each}`);
  if (rows.some(({ met }) => !met)) process.exitCode = 1;
} finally {
  await all.end();
}

/** Statuses and how many of each, in words. */
function counts(by) {
  return Object.entries(by)
    .sort()
    .map(([status, count]) => `${count} ${status}`)
    .join(', ');
}

/** Every route, as a server says of itself. */
async function listRoutes(url) {
  const db = connect(url);
  const plan = await buildApp({
    db,
    secret: 'only for the list of its routes, never used',
    logLevel: 'silent',
  });
  await plan.ready();
  const routes = routesOf(plan);
  await plan.close();
  await db.destroy();
  return routes;
}

/** Waits until a server says that it can work. */
async function reached(base) {
  for (let tries = 0; tries < 300; tries += 1) {
    const fine = await fetch(`${base}/api/health`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (fine) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${base} cannot work`);
}
