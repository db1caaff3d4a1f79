import { ms } from './rows.mjs';

/** Wide enough that three stops are needed and brute force has something to do. */
const WIDE_MARGIN = 80;
const RUNS = 20;
const ORDER = [1, 12, 5, 8, 3, 10, 6, 7, 2, 11, 4, 9];

/** A V-twelve with a brake rocker on every cylinder: 36 points. */
function vTwelve(margin) {
  const cylinders = ORDER.map((number, index) => ({ id: String(number), firesAt: index * 60 }));
  const points = cylinders.flatMap(({ id: cylinder }) => [
    { key: `${cylinder}I`, cylinder, role: 'intake' },
    { key: `${cylinder}E`, cylinder, role: 'exhaust' },
    { key: `${cylinder}B`, cylinder, role: 'brake', opens: 640, closes: 780 },
  ]);
  const events = { ivoBtdc: 18, ivcAbdc: 46, evoBbdc: 52, evcAtdc: 16 };
  return { cylinders, points, events, marks: 'any', margin };
}

/** Plain brute force: every set of whole degrees, from the smallest sets up, until one reaches every point. */
function bruteForce(input, { mayMeasureAt, openSpan }) {
  const spans = input.points.map((point) => openSpan(point, input.cylinders, input.events));
  const closed = Array.from({ length: 720 }, (_, angle) =>
    spans.map((span) => mayMeasureAt(span, input.margin, angle)),
  );
  const reaches = (angles) => spans.every((_, point) => angles.some((angle) => closed[angle][point]));
  const search = (angles, from, size) => {
    if (size === 0) return reaches(angles) ? angles : null;
    for (let angle = from; angle < 720; angle += 1) {
      const found = search([...angles, angle], angle + 1, size - 1);
      if (found) return found;
    }
    return null;
  };
  for (let size = 1; ; size += 1) {
    const found = search([], 0, size);
    if (found) return found.length;
  }
}

/** Twelve cylinders with a brake rocker each, closed for a moment, at a pulley with a mark every ten degrees. */
function hardTwelve() {
  const engine = vTwelve(0);
  const brakes = engine.points.filter(({ role }) => role === 'brake');
  return {
    ...engine,
    points: engine.points.map((point) => {
      const turned = brakes.indexOf(point) * 7;
      return point.role === 'brake' ? { ...point, opens: 60 + turned, closes: 725 + turned } : point;
    }),
    marks: Array.from({ length: 72 }, (_, index) => index * 10),
  };
}

/** The fewest stops at any angle, exactly, against plain brute force over every degree. */
export async function crankStops() {
  const { register } = await import('tsx/esm/api');
  register();
  const engine = await import('../../core/turning/index.ts');
  const input = vTwelve(WIDE_MARGIN);
  const hard = hardTwelve();
  const timed = (work, runs) => {
    const started = performance.now();
    let count = 0;
    for (let run = 0; run < runs; run += 1) count = work();
    return { ms: (performance.now() - started) / runs, count };
  };
  const faster = (of) => ({
    of,
    show: (ratio) => `${ratio.toFixed(0)} times faster`,
    met: (ratio) => ratio > 1,
  });
  return {
    turn: async () => {
      const brute = timed(() => bruteForce(input, engine), 1);
      const ours = timed(() => engine.crankStops(input).count, RUNS);
      const marks = timed(() => engine.crankStops(hard).count, RUNS);
      if (ours.count > brute.count) throw new Error('the exact plan is worse than brute force');
      return { brute: brute.ms, ours: ours.ms, count: ours.count, marks: marks.ms, marksCount: marks.count };
    },
    rows: [
      {
        name: 'stops',
        what: (middle) =>
          `Fewest stops of a V12 with 36 points at any angle (${middle((turn) => turn.count)}): ${middle((turn) => turn.ours).toFixed(2)} ms; brute force over every degree ${ms(middle((turn) => turn.brute))}`,
        figures: [faster((turn) => turn.brute / turn.ours)],
        aim: 'over 1',
      },
      {
        name: 'stops-of-marks',
        what: (middle) =>
          `Fewest of 72 marks for a V12 with twelve brake rockers (${middle((turn) => turn.marksCount)}): ${middle((turn) => turn.marks).toFixed(2)} ms; the same brute force`,
        figures: [faster((turn) => turn.brute / turn.marks)],
        aim: 'over 1',
      },
    ],
  };
}
