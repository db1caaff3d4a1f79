import pg from 'pg';
import { ms, under } from './rows.mjs';
import { p95 } from './table.mjs';

const REQUESTS = 6;

/** The data of the pages that take longest to read, read again each time: one request after another, by turns with a bare one. */
export async function rechecks({ base, url, viewer: { cookie }, atEnd }) {
  const database = new pg.Client({ connectionString: url });
  await database.connect();
  atEnd(() => database.end());
  /** As after somebody wrote to what each of them is read from. */
  const touched = () =>
    database.query("insert into table_changes (name) values ('rechecks'), ('point_checks')");
  const read = async (path) => {
    const started = performance.now();
    const answer = await fetch(`${base}${path}`, { headers: { cookie } });
    const body = await answer.text();
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${body}`);
    return { ms: performance.now() - started, body };
  };
  const [pattern] = JSON.parse((await read('/api/fleet')).body);
  const day = new Date().toISOString().slice(0, 10);
  const later = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);
  const pages = [
    ['rechecks-again', 'Rechecks, as a list', '/api/rechecks?limit=50', 100],
    [
      'rechecks-month-again',
      'Rechecks, a month of them',
      `/api/rechecks?limit=500&from=${day}&to=${later}`,
      100,
    ],
    ['today-again', 'Today', '/api/today', 100],
    ['fleet-again', 'What our engines say', `/api/fleet/${pattern.sheetId}`, 300],
  ];
  return {
    turn: async () => {
      const taken = { bare: [], ...Object.fromEntries(pages.map(([name]) => [name, []])) };
      for (let request = 0; request < REQUESTS; request += 1) {
        taken.bare.push((await read('/api/bare')).ms);
        for (const [name, , path] of pages) {
          await touched();
          taken[name].push((await read(path)).ms);
        }
      }
      return Object.fromEntries(Object.entries(taken).map(([name, figures]) => [name, p95(figures)]));
    },
    rows: pages.map(([name, words, , most]) => ({
      name,
      what: (middle) =>
        `${words}, read again each time: p95; a bare “select 1” ${ms(middle((turn) => turn.bare))}`,
      figures: [under((turn) => turn[name], most, ms)],
      aim: `under ${most} ms`,
    })),
  };
}
