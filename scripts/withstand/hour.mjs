import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { classOf, countBy } from './shop.mjs';

const AT_ONCE = 10;
const SETTLES_MS = 5000;

/** Memory of a process, MB, as the system counts it. */
const memoryOf = (pid) =>
  Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1024;

/** As many requests as a busy shop makes in an hour, a third of them writes, as fast as they go. */
export async function anHour({ call, build, pid, requests }) {
  const round = build.rounds.at(-1).id;
  const kinds = [
    () => call('GET', 'today'),
    () => call('GET', 'engines?search=fan'),
    () => call('GET', `builds/${build.id}`),
    () => call('GET', 'tools'),
    (number) => call('PUT', `rounds/${round}/turning`, { school: 'fewest', at: number % 720, done: [] }),
    (number) =>
      call('POST', `rounds/${round}/readings`, {
        ...{ point: '2I', reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: `hour ${number}` },
      }),
  ];
  const statuses = [];
  const run = async (count) => {
    let next = 0;
    const hand = async () => {
      while (next < count) {
        const number = next;
        next += 1;
        statuses.push(classOf((await kinds[number % kinds.length](number)).status));
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, hand));
  };
  // the first requests fill what is kept for speed
  await run(requests / 10);
  await pause(SETTLES_MS);
  const before = memoryOf(pid);
  await run(requests);
  await pause(SETTLES_MS);
  return { requests: statuses.length, by: countBy(statuses), before, after: memoryOf(pid) };
}
