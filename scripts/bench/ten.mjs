import pg from 'pg';
import { addManyEngines } from './manyEngines.mjs';
import { ms } from './rows.mjs';
import { median, p95 } from './table.mjs';
import { addressesOf } from './today.mjs';

const TIMES = 10;
const REQUESTS = 20;
const WARM_UP = 3;
/** How much longer a page may take in a shop of ten times the engines. */
const MOST = 1.5;

/**
 * Each page's data in a shop, and in one of ten times its engines: read again each time, as after somebody wrote to whatever it is read
 * from, so that what is kept does not hide what it costs.
 */
export async function ten({ base, url, viewer: { cookie } }, { engines, roundsEach, say }) {
  const database = new pg.Client({ connectionString: url });
  await database.connect();
  try {
    const addresses = await addressesOf(base, cookie);
    const before = await measured(addresses, { base, cookie, database });
    say(`Adding ${(TIMES - 1) * engines} engines`);
    const size = await addManyEngines(url, (TIMES - 1) * engines, roundsEach, 'C');
    const after = await measured(addresses, { base, cookie, database });
    const rows = addresses.map(([name, words], index) => {
      const [small, large] = [before[index], after[index]];
      const times = large.p95 / small.p95;
      return {
        what: `${words}, read again each time: p95 ${ms(small.p95)}, the middle ${ms(small.middle)}; with ten times the engines ${ms(large.p95)}, the middle ${ms(large.middle)} [${name}-ten]`,
        result: `${times.toFixed(2)} times`,
        aim: `at most ${MOST.toFixed(2)} times`,
        met: times <= MOST,
      };
    });
    return { size, rows };
  } finally {
    await database.end();
  }
}

async function measured(addresses, { base, cookie, database }) {
  const found = [];
  for (const [, , path] of addresses) {
    const taken = [];
    for (let request = 0; request < WARM_UP + REQUESTS; request += 1) {
      await database.query('insert into table_changes (name) select name from table_counts');
      const started = performance.now();
      const answer = await fetch(`${base}${path}`, { headers: { cookie } });
      const body = await answer.text();
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${body}`);
      if (request >= WARM_UP) taken.push(performance.now() - started);
    }
    found.push({ p95: p95(taken), middle: median(taken) });
  }
  return found;
}
