import { ms, under } from './rows.mjs';

const POINTS = 10_000;
const A_HEAD = 16;

/** Engines of sixteen points, each looked at five times, that close up by a known rate. */
function engines() {
  let state = 7;
  const any = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  return Array.from({ length: POINTS / A_HEAD }, () =>
    Array.from({ length: A_HEAD }, (_, index) => ({
      ...{ point: String(index), role: index % 2 ? 'exhaust' : 'intake', limits: { min: 0.3, max: 0.4 } },
      observations: [0, 11, 72, 190, 420].map((usage) => {
        const gap = Math.round((0.35 - 0.00005 * usage + (any() - 0.5) * 0.01) * 100) / 100;
        return { usage, lo: gap, hi: gap + 0.01 };
      }),
    })),
  );
}

/** The slope of a line through what was seen, by plain least squares: the least that says anything of a drift. */
function slopeOf(observations) {
  const n = observations.length;
  let [x, y, xx, xy] = [0, 0, 0, 0];
  for (const { usage, lo, hi } of observations) {
    const middle = (lo + hi) / 2;
    x += usage;
    y += middle;
    xx += usage * usage;
    xy += usage * middle;
  }
  return (n * xy - x * y) / (n * xx - x * x);
}

/** Forecasts of ten thousand points on a thread of their own, by turns with a straight line through the same looks. */
export async function forecasts() {
  const { register } = await import('tsx/esm/api');
  register();
  const { pointForecasts, rolePriors } = await import('../../core/rechecks/index.ts');
  const all = engines();
  const priors = rolePriors(['intake', 'exhaust'], 'hours', []);
  const timed = (work) => {
    const started = performance.now();
    const result = work();
    return { ms: performance.now() - started, result };
  };
  return {
    turn: async () => {
      const line = timed(() => all.map((points) => points.map(({ observations }) => slopeOf(observations))));
      const own = timed(() =>
        all.map((points) => pointForecasts(points, 'hours', priors, { now: 420, at: 670 })),
      );
      if (own.result.flat().length !== line.result.flat().length) throw new Error('a point has no forecast');
      return { ours: own.ms, line: line.ms };
    },
    rows: [
      {
        name: 'forecasts',
        what: (middle) =>
          `Forecasts of ${POINTS} points seen five times each; a straight line through the same looks ${ms(middle((turn) => turn.line))}`,
        figures: [under((turn) => turn.ours, 1000, ms)],
        aim: 'under 1000 ms',
      },
    ],
  };
}
