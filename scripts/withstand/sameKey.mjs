import { randomUUID } from 'node:crypto';
import { ask } from '../database.mjs';

/** One write with one key at two servers in the same moment: one of them writes, both give the one answer. */
export async function sameKeyTwice({ here, there, round, point, url, pairs }) {
  let agreed = 0;
  const keys = [];
  for (let number = 0; number < pairs; number += 1) {
    const key = randomUUID();
    keys.push(key);
    const reading = { point, reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: `pair ${number}` };
    const [one, other] = await Promise.all(
      [here, there].map((call) => call('POST', `rounds/${round}/readings`, reading, key)),
    );
    if (one.status === 201 && other.status === 201 && one.body.id === other.body.id) agreed += 1;
  }
  const [{ rows }] = await ask(
    url,
    `select count(*)::int as rows from readings where round_id = $1 and as_typed like 'pair %'`,
    [round],
  );
  return { pairs, agreed, rows };
}
