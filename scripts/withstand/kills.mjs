import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { ask } from '../database.mjs';
import { seeded } from './shop.mjs';

const WRITERS = 6;
const PAUSE_MS = 40;

/**
 * Several hands write readings without a pause, each until it is answered, while the server and its database are killed
 * again and again. Nothing may be lost that was answered, and nothing may be there twice.
 */
export async function killUnderWriting({ call, round, points, server, cluster, url, seconds }) {
  const until = Date.now() + seconds * 1000;
  const chance = seeded(7);
  const kills = { server: 0, database: 0 };
  const sent = [];
  let tries = 0;
  const write = async (hand) => {
    for (let number = 0; Date.now() < until; number += 1) {
      const one = { text: `${hand}/${number}`, key: randomUUID(), acknowledged: false };
      sent.push(one);
      const reading = {
        point: points[number % points.length],
        reading: { kind: 'bracket', go: 0.28, noGo: 0.3 },
        asTyped: one.text,
      };
      while (!one.acknowledged) {
        tries += 1;
        one.acknowledged = (await call('POST', `rounds/${round}/readings`, reading, one.key)).status === 201;
        if (!one.acknowledged) await pause(PAUSE_MS);
      }
    }
  };
  const kill = async () => {
    while (Date.now() < until) {
      await pause(4000 + chance() * 3000);
      if (chance() < 0.25) {
        kills.database += 1;
        cluster.kill();
      } else {
        kills.server += 1;
        server.child().kill('SIGKILL');
      }
    }
  };
  await Promise.all([kill(), ...Array.from({ length: WRITERS }, (_, hand) => write(hand))]);
  const rows = await ask(
    url,
    'select as_typed as text, count(*)::int as times from readings where round_id = $1 group by 1',
    [round],
  );
  const times = new Map(rows.map((row) => [row.text, row.times]));
  return {
    ...kills,
    sent: sent.length,
    tries,
    acknowledged: sent.filter(({ acknowledged }) => acknowledged).length,
    there: sent.filter(({ text }) => times.has(text)).length,
    twice: sent.filter(({ text }) => times.get(text) > 1).length,
  };
}
