import { under } from './rows.mjs';
import { median } from './table.mjs';

const POINTS = 48;
const PIECES = 400;
const SIZES = 60;
/** Questions a turn. */
const RUNS = 3;
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

/** A plan over 48 points, and its assignment against a plain Hungarian method on the same costs. */
export async function shimPlans() {
  const { register } = await import('tsx/esm/api');
  register();
  const { leastAssignment, shimPlan } = await import('../../core/setting/index.ts');
  const { default: munkres } = await import('munkres-js');
  const timed = (work) => {
    const started = performance.now();
    const result = work();
    return { ms: performance.now() - started, result };
  };
  const assigned = (seed) => {
    const costs = costsOf(question(seed));
    const sum = (columns) => columns.reduce((all, column, row) => all + (costs[row][column] ?? MAY_NOT), 0);
    const mine = costs.map((row) => row.map((cost) => (cost === null ? null : [cost])));
    const square = costs.map((row) => row.map((cost) => cost ?? MAY_NOT));
    const other = timed(() => munkres(square));
    const own = timed(() => leastAssignment(mine));
    const columns = other.result.toSorted(([a], [b]) => a - b).map(([, column]) => column);
    if (sum(own.result) !== sum(columns)) throw new Error('the two assignments do not cost the same');
    return { ours: own.ms, theirs: other.ms };
  };
  let seed = 0;
  return {
    turn: async () => {
      const seeds = Array.from({ length: RUNS }, () => (seed += 1));
      const plans = seeds.map((each) => timed(() => shimPlan(question(each))).ms);
      const both = seeds.map(assigned);
      return {
        plan: median(plans),
        ours: median(both.map(({ ours }) => ours)),
        theirs: median(both.map(({ theirs }) => theirs)),
      };
    },
    rows: [
      {
        name: 'shim-plan',
        what: () => 'A shim plan over 48 points, 400 pieces and 60 sizes to order',
        figures: [
          under(
            (turn) => turn.plan,
            16,
            (figure) => `${figure.toFixed(1)} ms`,
          ),
        ],
        aim: 'under 16 ms',
      },
      {
        name: 'assignment',
        what: (middle) =>
          `Its assignment: ${middle((turn) => turn.ours).toFixed(1)} ms; the munkres-js package on the same costs, with equal totals, ${middle((turn) => turn.theirs).toFixed(0)} ms`,
        figures: [
          {
            of: (turn) => turn.theirs / turn.ours,
            show: (ratio) => `${ratio.toFixed(0)} times faster`,
            met: (ratio) => ratio >= 20,
          },
        ],
        aim: 'at least 20',
      },
    ],
  };
}
