import { crankStops } from './crankStops.ts';
import { lashPoints, type LashPoint } from '../sheets/lashPoints.ts';
import { openPairs } from './openPairs.ts';
import { apart, CYCLE, mayMeasureAt, openSpan } from './openSpan.ts';
import { marginOf } from './margin.ts';
import { pairStops, tableStops } from './makersTable.ts';
import type { Pattern } from '../sheets/pattern.ts';
import { spannedPoints, type SpannedPoint } from './valveGear.ts';

/** A school of where to stop the crank; the first is the default. */
export type PositionSchool =
  'maker' | 'fewest' | 'each-firing' | 'companion' | 'open-pair' | 'lobe-away' | 'cam-by-hand';

/** A stop of the crank, what is done there, and the signs that it is the right one. Angles in crank degrees. */
export interface PlannedStop {
  readonly angle: number;
  /** degrees to turn on from the stop before, in running direction; 0 at the first */
  readonly turn: number;
  readonly points: readonly string[];
  /** a mark of the pulley stands at the pointer */
  readonly marked: boolean;
  /** cylinders at their firing TDC: both their valves are loose */
  readonly fires: readonly string[];
  /** cylinders at their overlap TDC: their valves rock, exhaust closing, intake opening */
  readonly rocks: readonly string[];
  /** points whose valves are seen fully open; those that the maker's table goes by stand first */
  readonly fullyOpen: readonly string[];
}

/** Where to turn an engine, by one school. */
export interface StopPlan {
  readonly stops: readonly PlannedStop[];
  /** points this school cannot reach */
  readonly unreachable: readonly string[];
}

/** How near an angle counts as being at it. */
const AT_DEGREES = 2;
const FULLY_OPEN_WITHIN = 10;
const ON_BOUNDARY = 1e-6;

/**
 * Plans where to stop the crank so that every point is measured on its base circle, by the school chosen.
 *
 * - `maker`: the maker's own table of the sheet; it governs, whatever the geometry says.
 * - `fewest`: the fewest stops of the pulley's marks.
 * - `each-firing` and `companion`: every cylinder at its own firing TDC, in firing order; the second is told by the
 *   companion cylinder, whose valves rock at that moment.
 * - `open-pair`: each point when it is farthest from its lobe, told by the valve then fully open; two stops are one where their
 *   windows meet. Where the sheet has the maker's table of pairs, its rows are the stops.
 * - `lobe-away`: the fewest stops at any angle, marks or none.
 * - `cam-by-hand`: a head off its engine, or with its chain off: no crank is turned, and there is no stop of one.
 *
 * @example planStops(inlineFour, 'fewest').stops.length // 2
 */
export function planStops(pattern: Pattern, school: PositionSchool): StopPlan {
  if (school === 'cam-by-hand') return { stops: [], unreachable: [] };
  const spans = spannedPoints(pattern);
  const closedAt = (angle: number) =>
    spans.filter(({ span }) => mayMeasureAt(span, marginOf(pattern), angle)).map(({ point }) => point);
  const groups = anglesFor(pattern, school, closedAt);
  const reached = new Set(groups.flatMap(({ points }) => points));
  const ordered = [...groups].sort((a, b) => a.angle - b.angle);
  return {
    stops: ordered.map(({ angle, points, open = [] }, index) => {
      const signs = signsAt(pattern, spans, angle);
      return {
        ...{ angle, turn: index === 0 ? 0 : angle - ordered[index - 1]!.angle, points },
        ...signs,
        fullyOpen: [...open, ...signs.fullyOpen.filter((key) => !open.includes(key))],
      };
    }),
    unreachable: spans.map(({ point }) => point.key).filter((key) => !reached.has(key)),
  };
}

/**
 * Says which school a pattern's rounds begin with: the maker's own table, or its table of pairs, where the sheet has one; where the
 * engine has no mark, or nobody knows its timing, that which goes by its cylinders' firing.
 *
 * @example firstSchool(pattern) // 'fewest'
 */
export function firstSchool({
  makersStops = [],
  makersPairs = [],
  marks,
  timing,
}: Pick<Pattern, 'makersStops' | 'makersPairs' | 'marks' | 'timing'>): PositionSchool {
  if (makersStops.length > 0) return 'maker';
  if (makersPairs.length > 0) return 'open-pair';
  return marks.length > 0 && !timing.assumed ? 'fewest' : 'each-firing';
}

/** Where a maker's table and the geometry of the cams do not say the same. */
export interface TableDifference {
  readonly angle: number;
  /** points the table has measured there, which the valve timing says are off their base circle */
  readonly open: readonly string[];
}

/**
 * Holds a maker's own table against the geometry: what it has measured where the timing says that the follower is off its
 * base circle, and what it does not have at all. The table governs; a difference is looked at before it is believed.
 *
 * @example tableDifferences(pattern).differences // []
 */
export function tableDifferences(pattern: Pattern): {
  readonly differences: readonly TableDifference[];
  readonly missing: readonly string[];
} {
  const spans = new Map(spannedPoints(pattern).map(({ point, span }) => [point.key, span]));
  const stops = tableStops(pattern);
  const listed = new Set(stops.flatMap(({ points }) => points));
  return {
    differences: stops.flatMap(({ angle, points }) => {
      const open = points.filter((key) => {
        const span = spans.get(key);
        return span !== undefined && !mayMeasureAt(span, marginOf(pattern), angle);
      });
      return open.length > 0 ? [{ angle, open }] : [];
    }),
    missing: stops.length > 0 ? [...spans.keys()].filter((key) => !listed.has(key)) : [],
  };
}

interface Group {
  readonly angle: number;
  readonly points: readonly string[];
  /** the valves whose being fully open tells it */
  readonly open?: readonly string[];
}

function anglesFor(
  pattern: Pattern,
  school: Exclude<PositionSchool, 'cam-by-hand'>,
  closedAt: (angle: number) => readonly LashPoint[],
): readonly Group[] {
  const input = {
    cylinders: pattern.cylinders,
    points: lashPoints(pattern),
    events: pattern.timing,
    margin: marginOf(pattern),
  };
  switch (school) {
    case 'maker':
      return pattern.makersStops ?? [];
    case 'fewest':
      return crankStops({ ...input, marks: pattern.marks }).stops;
    case 'lobe-away':
      return crankStops({ ...input, marks: 'any' }).stops;
    case 'each-firing':
    case 'companion':
      return byFiring(pattern, closedAt);
    case 'open-pair': {
      if (pattern.makersPairs?.length) return pairStops(pattern);
      const { pairs } = openPairs({ ...input, within: FULLY_OPEN_WITHIN });
      const angles = [...new Set(pairs.map(({ at }) => at))];
      return whereWindowsMeet(
        angles.map((angle) => ({
          angle,
          points: pairs.filter(({ at }) => at === angle).map(({ check }) => check),
        })),
        closedAt,
      );
    }
  }
}

/**
 * Takes two stops together where, between them, the valves that are watched at both still stand fully open, and every point of both may
 * be measured: one look instead of two.
 */
function whereWindowsMeet(
  groups: readonly Group[],
  closedAt: (angle: number) => readonly LashPoint[],
): readonly Group[] {
  const inOrder = [...groups].sort((a, b) => a.angle - b.angle);
  // the cycle closes: it is gone round from behind the first gap in which no two meet
  const from = inOrder.findIndex(
    ({ angle }, index) =>
      angle - (inOrder.at(index - 1)!.angle - (index === 0 ? CYCLE : 0)) > 2 * FULLY_OPEN_WITHIN,
  );
  const round = [
    ...inOrder.slice(Math.max(0, from)),
    ...inOrder.slice(0, Math.max(0, from)).map((group) => ({ ...group, angle: group.angle + CYCLE })),
  ];
  const met: Group[] = [];
  for (const group of round) {
    const last = met.at(-1);
    const points = [...(last?.points ?? []), ...group.points];
    const angle = last ? (last.angle + group.angle) / 2 : group.angle;
    const near = last && group.angle - last.angle <= 2 * FULLY_OPEN_WITHIN + ON_BOUNDARY;
    const closed = near ? new Set(closedAt(angle % CYCLE).map(({ key }) => key)) : null;
    // one that was taken together already stands at the edge of both windows
    const alone = round.some(({ angle: own }) => own === last?.angle);
    if (closed && alone && points.every((key) => closed.has(key))) met.splice(-1, 1, { angle, points });
    else met.push(group);
  }
  return met.map(({ angle, points }) => ({ angle: angle % CYCLE, points }));
}

/**
 * Each cylinder's own points at its firing TDC; what is open there, as a brake rocker is, at the stop where it is closed
 * that lies nearest its companion's firing.
 */
function byFiring(pattern: Pattern, closedAt: (angle: number) => readonly LashPoint[]): readonly Group[] {
  const firesAt = new Map(pattern.cylinders.map(({ id, firesAt: angle }) => [id, angle]));
  const stops = [...new Set(firesAt.values())]
    .sort((a, b) => a - b)
    .map((angle) => ({ angle, closed: new Set(closedAt(angle).map(({ key }) => key)) }));
  const stopFor = ({ key, cylinder }: LashPoint): number | undefined => {
    const own = firesAt.get(cylinder)!;
    const companion = own + CYCLE / 2;
    const allowed = stops.filter(({ closed }) => closed.has(key));
    if (allowed.some(({ angle }) => angle === own)) return own;
    return allowed.sort((a, b) => apart(a.angle, companion) - apart(b.angle, companion))[0]?.angle;
  };
  const points = lashPoints(pattern).map((point) => ({ key: point.key, stop: stopFor(point) }));
  return stops.map(({ angle }) => ({
    angle,
    points: points.filter(({ stop }) => stop === angle).map(({ key }) => key),
  }));
}

function signsAt(
  pattern: Pattern,
  spans: readonly SpannedPoint[],
  angle: number,
): Omit<PlannedStop, 'angle' | 'turn' | 'points'> {
  const at = (other: number, within = AT_DEGREES) => apart(angle, other) <= within + ON_BOUNDARY;
  return {
    marked: pattern.marks.some((mark) => at(mark)),
    fires: pattern.cylinders.filter(({ firesAt }) => at(firesAt)).map(({ id }) => id),
    rocks: pattern.cylinders.filter(({ firesAt }) => at(firesAt + CYCLE / 2)).map(({ id }) => id),
    fullyOpen: spans
      .filter(({ span }) => at(span.start + span.length / 2, FULLY_OPEN_WITHIN))
      .map(({ point }) => point.key),
  };
}

/** What a person feels or sees at one cylinder with the crank still. */
export type CylinderSign = 'both-loose' | 'rocking' | 'intake-open' | 'exhaust-open';

const ROCKING_WITHIN = 40;

/**
 * Says what a cylinder's valves should show at an angle; of one that is pressed open, which.
 *
 * @throws RangeError when there is no such cylinder
 * @example signOf(inlineFour, '1', 0) // 'both-loose'
 */
export function signOf(pattern: Pattern, cylinder: string, angle: number): CylinderSign {
  const found = pattern.cylinders.find(({ id }) => id === cylinder);
  if (!found) throw new RangeError(`there is no cylinder ${cylinder}`);
  const open = lashPoints(pattern).filter(
    (point) =>
      point.cylinder === cylinder &&
      point.role !== 'brake' &&
      !mayMeasureAt(openSpan(point, pattern.cylinders, pattern.timing), 0, angle),
  );
  if (apart(angle, found.firesAt + CYCLE / 2) <= ROCKING_WITHIN) return 'rocking';
  if (open.length === 0) return 'both-loose';
  return open.some(({ role }) => role.startsWith('exhaust')) ? 'exhaust-open' : 'intake-open';
}

/** Which of the two positions with the mark at the pointer the crank is in. */
export type TdcAnswer = 'this' | 'one-turn-on' | 'either' | 'neither';

/**
 * Answers which of the two turns the crank is in, from what is felt at one or two cylinders with a mark at its pointer:
 * the mark comes round twice a cycle, and one of the two is a turn out.
 *
 * @param angle the stop that is meant
 * @param seen what is felt or seen, cylinder by cylinder
 * @example whichTdc(inlineFour, 0, { '1': 'rocking' }) // 'one-turn-on'
 */
export function whichTdc(
  pattern: Pattern,
  angle: number,
  seen: Readonly<Record<string, CylinderSign>>,
): TdcAnswer {
  const fits = (candidate: number) =>
    Object.entries(seen).every(([cylinder, sign]) => signOf(pattern, cylinder, candidate) === sign);
  const [here, onward] = [fits(angle), fits(angle + CYCLE / 2)];
  if (here && onward) return 'either';
  if (here) return 'this';
  return onward ? 'one-turn-on' : 'neither';
}
