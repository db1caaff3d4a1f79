import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, rmSync, writeFileSync, appendFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { ask, ensureDatabase, startCluster } from '../database.mjs';
import { ROOT } from '../packages.mjs';
import { addressOf, startServer, stopped } from '../server.mjs';
import { keepReviving } from '../supervise.mjs';
import { BENCH, buildOf, countBy, signIn } from './shop.mjs';

const SIZE_MB = 320;
const MB = 1024 * 1024;
const BEFORE_MS = 5000;
const FULL_MS = 25_000;
const AFTER_MS = 10_000;
const HANDS = 4;
const PAUSE_MS = 60;

/**
 * Hands write readings, each until it is answered, while the disk that the database alone has fills up, stays full and is freed
 * again: a small disk in memory, filled by a file beside the cluster. Nothing that was answered may be lost, and nothing that could
 * not be written may be answered as if it were at fault.
 *
 * @returns null where nobody may make a disk here
 */
export async function fullDisk({ atEnd }) {
  const folder = `.data/withstand-disk-${process.pid}`;
  const home = `${ROOT}${folder}`;
  mkdirSync(home, { recursive: true });
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE_MB}m,mode=0777`, 'tmpfs', home]);
  if (mounted.status !== 0) {
    rmSync(home, { recursive: true, force: true });
    return null;
  }
  const filler = `${home}/filler`;
  const ends = [
    () => spawnSync('umount', ['-l', home]),
    () => rmSync(home, { recursive: true, force: true }),
  ];
  const end = async () => {
    for (const each of ends.splice(0)) await each();
  };
  atEnd(end);
  try {
    const cluster = await startCluster(`${folder}/db`, { throwaway: true, durable: true });
    ends.unshift(() => cluster.stop());
    ends.unshift(keepReviving(cluster.revive, 1000));
    const url = await ensureDatabase(cluster, 'withstand');
    const server = startServer(
      { DATABASE_URL: url, ZERO_LASH_DEMO: 'yes', LOG_LEVEL: 'silent', PORT: '0' },
      'pipe',
    );
    ends.unshift(() => stopped(server));
    const base = await addressOf(server);
    const call = await signIn(base, BENCH);
    const build = await buildOf(call, 'Frost fan 7');
    const round = build.rounds.at(-1).id;

    const from = Date.now();
    const fullUntil = from + BEFORE_MS + FULL_MS;
    const until = fullUntil + AFTER_MS;
    const sent = [];
    const answers = [];
    const health = [];
    const write = async (hand) => {
      for (let number = 0; Date.now() < until; number += 1) {
        const one = { text: `${hand}/${number}`, key: randomUUID(), status: 0 };
        sent.push(one);
        // as a device does it: until it is answered, unless it is refused for good
        while (one.status === 0 || one.status === 503) {
          const { status } = await call(
            'POST',
            `rounds/${round}/readings`,
            {
              ...{ point: ['1I', '2I', '3E', '4E'][hand], asTyped: one.text },
              reading: { kind: 'bracket', go: 0.28, noGo: 0.3 },
            },
            one.key,
          );
          one.status = status;
          answers.push(status);
          await pause(PAUSE_MS);
        }
      }
    };
    const fill = async () => {
      await pause(BEFORE_MS);
      writeFileSync(filler, '');
      // what the database frees meanwhile is taken too
      while (Date.now() < fullUntil) {
        try {
          appendFileSync(filler, Buffer.alloc(MB));
        } catch {
          await pause(200);
          health.push((await fetch(`${base}/api/health`).then((answer) => answer.json())).writes);
        }
      }
      rmSync(filler);
    };
    await Promise.all([fill(), ...Array.from({ length: HANDS }, (_, hand) => write(hand))]);
    const rows = await ask(
      url,
      'select as_typed as text, count(*)::int as times from readings where round_id = $1 group by 1',
      [round],
    );
    const times = new Map(rows.map((row) => [row.text, row.times]));
    return {
      sent: sent.length,
      acknowledged: sent.filter(({ status }) => status === 201).length,
      there: sent.filter(({ text }) => times.has(text)).length,
      twice: sent.filter(({ text }) => times.get(text) > 1).length,
      setAside: sent.filter(({ status }) => status !== 201).length,
      by: countBy(answers),
      told: countBy(health),
    };
  } finally {
    await end();
  }
}
