import { median } from './table.mjs';

const POINTS = 48;
const PIECES = 400;
const SIZES = 60;
const RUNS = 15;
const MUNKRES_RUNS = 7;
/** What counts as more than everything that may be; whole, so that sums are exact. */
const MAY_NOT = 2 ** 44;

/** A generator of figures that are the same in every run. */
function figures(seed) {
  let state = seed;
  return (from, to) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return from + (state / 2 ** 32) * (to - from);
  };
}

/** A large engine measured by blades, and a full drawer; mm. */
function question(seed) {
  const any = figures(seed);
  const hundredth = (value) => Math.round(value * 100) / 100;
  return {
    points: Array.from({ length: POINTS }, (_, index) => {
      const lo = hundredth(any(0.05, 0.45));
      return {
        ...{ key: `${index}`, lo, hi: lo + 0.01, installed: hundredth(any(2.2, 3)) },
        ...{ min: 0.2, max: 0.3, target: 0.25 },
      };
    }),
    stock: Array.from({ length: PIECES }, () => ({ thickness: hundredth(any(2.0, 3.2)), qty: 1 })),
    orderable: Array.from({ length: SIZES }, (_, index) => ({
      thickness: hundredth(2 + index * 0.02),
      price: 7,
    })),
    change: { rule: 'all' },
  };
}

/** The same question as one whole figure a point and a piece: brought in first, then surely, then nearest its aim. */
function costsOf({ points, stock, orderable }) {
  const costOf = ({ lo, hi, installed, min, max, target }, thickness, price) => {
    const change = Math.round((installed - thickness) * 1e4);
    const [from, to] = [Math.round(lo * 1e4) + change, Math.round(hi * 1e4) + change];
    const [least, most] = [Math.round(min * 1e4), Math.round(max * 1e4)];
    const middle = (from + to) / 2;
    if (middle < least || middle > most) return null;
    const sure = from >= least && to <= most ? 0 : 1;
    return sure * 2 ** 30 + price * 2 ** 20 + Math.round(Math.abs(middle - target * 1e4));
  };
  const pieces = [...points.map(({ installed }) => installed), ...stock.map(({ thickness }) => thickness)];
  return points.map((point, row) => [
    ...pieces.map((thickness) => costOf(point, thickness, 0)),
    ...points.map((_, other) => {
      if (other !== row) return null;
      const bought = orderable.map(({ thickness, price }) => costOf(point, thickness, price));
      return Math.min(2 ** 38, ...bought.filter((cost) => cost !== null));
    }),
  ]);
}

/** A plan over 48 points, and its assignment against a plain Hungarian method on the same costs, by turns. */
export async function benchShimPlan() {
  const { register } = await import('tsx/esm/api');
  register();
  const { leastAssignment, shimPlan } = await import('../../core/setting/index.ts');
  const { default: munkres } = await import('munkres-js');
  const timed = (work) => {
    const started = performance.now();
    const result = work();
    return { ms: performance.now() - started, result };
  };
  const plans = Array.from({ length: RUNS }, (_, seed) => timed(() => shimPlan(question(seed + 1))).ms);
  const [ours, theirs] = [[], []];
  for (let run = 0; run < MUNKRES_RUNS; run += 1) {
    const costs = costsOf(question(run + 1));
    const sum = (columns) => columns.reduce((all, column, row) => all + (costs[row][column] ?? MAY_NOT), 0);
    const mine = costs.map((row) => row.map((cost) => (cost === null ? null : [cost])));
    const square = costs.map((row) => row.map((cost) => cost ?? MAY_NOT));
    const own = timed(() => leastAssignment(mine));
    const other = timed(() => munkres(square));
    const columns = other.result.toSorted(([a], [b]) => a - b).map(([, column]) => column);
    if (sum(own.result) !== sum(columns)) throw new Error('the two assignments do not cost the same');
    ours.push(own.ms);
    theirs.push(other.ms);
  }
  const [ms, munkresMs] = [median(ours), median(theirs)];
  return { planMs: median(plans), ms, munkresMs, ratio: munkresMs / ms };
}
