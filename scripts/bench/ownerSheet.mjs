import autocannon from 'autocannon';
import { median } from './table.mjs';

const SHEETS = 20;

/** How long an owner's sheet takes, and what Today's data waits for while twenty of them are made one after another. */
export async function benchOwnerSheet(base, cookie) {
  const headers = { cookie };
  const { engines } = await (await fetch(`${base}/api/engines?search=Summit%20drive`, { headers })).json();
  const address = `${base}/api/builds/${engines[0].buildId}/owner-sheet`;
  const draw = async () => {
    const started = performance.now();
    const answer = await fetch(address, { headers });
    await answer.arrayBuffer();
    if (answer.status !== 200) throw new Error(`the owner's sheet answered ${answer.status}`);
    return performance.now() - started;
  };
  // the first one starts the thread it is drawn on
  await draw();
  const alone = [];
  for (let sheet = 0; sheet < 5; sheet += 1) alone.push(await draw());
  const measured = autocannon({ url: `${base}/api/today`, connections: 2, duration: 8, headers });
  for (let sheet = 0; sheet < SHEETS; sheet += 1) await draw();
  const { latency } = await measured;
  return { ms: median(alone), p99: latency.p99 };
}
