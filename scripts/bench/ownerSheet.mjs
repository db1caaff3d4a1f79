import autocannon from 'autocannon';
import { ms, under } from './rows.mjs';

const SECONDS = 2;
const AT_ONCE = 2;

/** How long an owner's sheet takes, and what Today's data waits for while they are made one after another. */
export async function ownerSheet({ base, viewer: { cookie } }) {
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
  const today = async (beside) => {
    const measured = autocannon({
      url: `${base}/api/today`,
      connections: AT_ONCE,
      duration: SECONDS,
      headers,
    });
    const until = Date.now() + SECONDS * 1000;
    let drawn = 0;
    while (beside && Date.now() < until) {
      await draw();
      drawn += 1;
    }
    return { p99: (await measured).latency.p99, drawn };
  };
  return {
    turn: async () => {
      // the first one starts the thread it is drawn on, unless it is still there
      await draw();
      const alone = await draw();
      const bare = await today(false);
      const beside = await today(true);
      return { alone, bare: bare.p99, p99: beside.p99, drawn: beside.drawn };
    },
    rows: [
      {
        name: 'owner-sheet',
        what: () => 'The owner’s sheet of a V12 with 24 valves, as a PDF',
        figures: [under((turn) => turn.alone, 500, ms)],
        aim: 'under 500 ms',
      },
      {
        name: 'today-beside-papers',
        what: (middle) =>
          `Today’s data while ${middle((turn) => turn.drawn).toFixed(0)} of them are made in ${SECONDS} s: p99; while none is ${ms(middle((turn) => turn.bare))}`,
        figures: [under((turn) => turn.p99, 100, ms)],
        aim: 'under 100 ms',
      },
    ],
  };
}
