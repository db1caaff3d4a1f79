import { percent } from './rows.mjs';

const ENGINES = 400;
const VALVES = 16;
/** mm: how well one hand feels the same gap again, what a micrometer is off by, and how far a piece is from its size. */
const FEEL = 0.006;
const MICROMETER = 0.003;
const MADE = 0.003;
/** Of the marks, how many are worn or lie, and by how much at most; mm. */
const WORN_MARKS = 0.12;
const WORN_BY = 0.06;
const STEP = 0.025;
/** Second looks by which a person's own feel is known. */
const LOOKS = 40;
/** Pieces that lie in a drawer, of any size an engine may want. */
const DRAWERS = { empty: 0, 'half full': 20, full: 40 };

/** Figures that are the same in every run: even ones, and such as errors are. */
function chance(seed) {
  let state = seed >>> 0;
  const even = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  return {
    even,
    normal: (sd) => sd * Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even()),
  };
}

const hundredth = (mm) => Math.round(mm * 100) / 100;
const onStep = (mm) => Math.round(mm / STEP) * STEP;
const BLADES = Array.from({ length: 49 }, (_, index) => hundredth(0.02 + index * 0.01));
const SIZES = Array.from({ length: 49 }, (_, index) => Math.round((2 + index * STEP) * 1000) / 1000);

/** An engine as it truly is: its gaps, its pieces, and what is stamped on them; mm. */
function engine({ even, normal }) {
  return Array.from({ length: VALVES }, (_, index) => {
    const [min, max] = index % 4 < 2 ? [0.11, 0.19] : [0.21, 0.29];
    const size = Math.round(onStep(2.4 + even() * 0.4) * 1000) / 1000;
    const worn = even() < WORN_MARKS;
    return {
      ...{ key: `${index}`, min, max },
      piece: size + normal(MADE),
      mark: worn ? hundredth(size + (even() * 2 - 1) * WORN_BY) : size,
      gap: Math.max(0.06, (min + max) / 2 - 0.03 + normal(0.05)),
    };
  });
}

/** Between which two blades one hand, as it feels that day, finds a gap; mm. */
function feel(gap, { normal }) {
  const felt = gap + normal(FEEL);
  const lo = BLADES.filter((blade) => blade <= felt).at(-1) ?? 0;
  return { lo, hi: BLADES.find((blade) => blade > felt) ?? null };
}

const drawer = ({ even }, pieces) =>
  Array.from({ length: pieces }, () => ({
    thickness: SIZES[Math.floor((0.2 + even() * 0.6) * SIZES.length)],
    qty: 1,
  }));

const middleOf = ({ min, max }) => (min + max) / 2;

/** By hand: the last blade that goes is the gap, the mark is the piece, the middle is aimed at, and every piece is bought. */
function byHand(points, luck) {
  const changed = points.flatMap((point) => {
    const { lo: gap } = feel(point.gap, luck);
    if (gap >= point.min && gap <= point.max) return [];
    const wanted = point.mark + gap - middleOf(point);
    const size = SIZES.reduce((best, each) =>
      Math.abs(each - wanted) < Math.abs(best - wanted) ? each : best,
    );
    return [[point.key, size]];
  });
  const passes = (point, gap) => {
    const { lo } = feel(gap, luck);
    return lo >= point.min && lo <= point.max;
  };
  return { fitted: new Map(changed), bought: changed.length, passes };
}

/**
 * By this program: brackets, the micrometer, the whole plan at once, and only what is missing bought. The guard is the one it keeps:
 * its own before anybody's feel is known, or what that feel asks for; nobody told it what a piece costs.
 */
function byPlan(core, points, luck, { pieces, guard }) {
  const plan = core.shimPlan({
    points: points.map((point) => ({
      ...{ key: point.key, min: point.min, max: point.max, target: middleOf(point) },
      ...feel(point.gap, luck),
      installed: Math.round((point.piece + luck.normal(MICROMETER)) * 1000) / 1000,
    })),
    stock: drawer(luck, pieces),
    orderable: SIZES.map((thickness) => ({ thickness })),
    change: { rule: 'out-of-spec' },
    guard,
  });
  const piece = new Map(points.map(({ key, piece: is }) => [key, is]));
  const fitted = plan.assignments
    .filter(({ touched, source }) => touched && source !== 'keep' && source !== 'none')
    .map(({ key, source, from, thickness }) => [
      key,
      source === 'removed' ? { is: piece.get(from) } : thickness,
    ]);
  const passes = (point, gap) => {
    const { lo, hi } = feel(gap, luck);
    return hi !== null && lo >= point.min && hi <= point.max;
  };
  return { fitted: new Map(fitted), bought: plan.totals.ordered, passes };
}

/** What one way comes to over all engines: second strip-downs, pieces bought, and valves passed that are truly out. */
function outcome(way) {
  let [again, bought, passedOut, passed] = [0, 0, 0, 0];
  for (let number = 1; number <= ENGINES; number += 1) {
    const luck = chance(number * 7919);
    const points = engine(luck);
    const { fitted, bought: many, passes } = way(points, luck);
    bought += many;
    const judged = points.map((point) => {
      const into = fitted.get(point.key);
      const piece = into === undefined ? point.piece : (into.is ?? into + luck.normal(MADE));
      const gap = point.gap + point.piece - piece;
      return { ok: passes(point, gap), out: gap < point.min || gap > point.max };
    });
    if (judged.some(({ ok }) => !ok)) again += 1;
    passed += judged.filter(({ ok }) => ok).length;
    passedOut += judged.filter(({ ok, out }) => ok && out).length;
  }
  return {
    again: again / ENGINES,
    bought: bought / ENGINES,
    passedOut: (passedOut / passed) * 1000,
  };
}

/** The same simulated engines set by hand and by the plan, each proved by another hand the way it measures: the same every time. */
export async function rebuilds() {
  const { register } = await import('tsx/esm/api');
  register();
  const core = await import('../../core/setting/index.ts');
  const luck = chance(1);
  const looks = Array.from({ length: LOOKS }, (_, index) => ({
    first: feel(0.15 + index / 200, luck),
    second: feel(0.15 + index / 200, luck),
  }));
  const guards = {
    'no feel known': core.feelSpread({ looks: [] }).guard,
    'their feel known': core.feelSpread({ looks }).guard,
  };
  const plans = Object.entries(DRAWERS).flatMap(([drawerIs, pieces]) =>
    Object.entries(guards).map(([known, guard]) => ({
      name: `${drawerIs}, ${known} (${Math.round(guard * 1000)} µm kept)`,
      short: `${drawerIs.replaceAll(' ', '-')}-${known.startsWith('no') ? 'unknown' : 'known'}`,
      ...{ pieces, guard },
    })),
  );
  const ofPlan = (short, figure, met, show) => ({
    of: (turn) => turn[short][figure],
    show,
    met,
  });
  const tenths = (figure) => figure.toFixed(1);
  return {
    same: true,
    turn: async () => ({
      hand: outcome(byHand),
      ...Object.fromEntries(
        plans.map(({ short, pieces, guard }) => [
          short,
          outcome((points, luckThere) => byPlan(core, points, luckThere, { pieces, guard })),
        ]),
      ),
    }),
    rows: plans.flatMap(({ name, short }) => [
      {
        name: `again-${short}`,
        what: (middle) =>
          `${ENGINES} simulated engines of ${VALVES} valves, drawer ${name}: a second strip-down needed: by hand ${percent(middle((turn) => turn.hand.again))}`,
        figures: [
          {
            of: (turn) => turn[short].again / turn.hand.again,
            show: (share) => `${share.toFixed(2)} of it`,
            met: (share) => share <= 0.1,
          },
        ],
        aim: 'at most a tenth of that',
      },
      {
        name: `bought-${short}`,
        what: (middle) =>
          `The same, drawer ${name}: shims bought an engine: ${tenths(middle((turn) => turn[short].bought))}; by hand ${tenths(middle((turn) => turn.hand.bought))}`,
        figures: [
          {
            of: (turn) => turn[short].bought / turn.hand.bought,
            show: (share) => `${share.toFixed(2)} of it`,
            met: (share) => share < 0.5,
          },
        ],
        aim: 'under half of that',
      },
      {
        name: `passed-${short}`,
        what: (middle) =>
          `The same, drawer ${name}: of 1000 valves passed truly out of their band: by hand ${middle((turn) => turn.hand.passedOut).toFixed(0)}`,
        figures: [ofPlan(short, 'passedOut', (figure) => figure < 2, tenths)],
        aim: 'under 2',
      },
    ]),
  };
}
