import { TURN } from './crankWheel.ts';
import { bothNames, cylinderName } from '../sheets/makersNames.ts';
import { lashPoints } from '../sheets/lashPoints.ts';
import type { Pattern } from '../sheets/pattern.ts';
import { apart, CYCLE, openSpan } from './openSpan.ts';
import { markNameAt, signAt } from './seenAt.ts';
import type { PlannedStop, PositionSchool } from './stopPlan.ts';

/** Each school in a word and a line, as a person chooses it. The first is there only where the sheet has such a table. */
export const POSITION_SCHOOLS: readonly {
  readonly key: PositionSchool;
  readonly name: string;
  readonly line: string;
}[] = [
  {
    key: 'maker',
    name: 'The maker’s own table',
    line: 'The positions the source prints, point by point. It governs; differences from the geometry are shown.',
  },
  {
    key: 'fewest',
    name: 'Fewest stops of the marks',
    line: 'Every point whose follower is off its lobe at a mark is measured there: the least turning.',
  },
  {
    key: 'each-firing',
    name: 'Each cylinder at its firing TDC',
    line: 'One cylinder after another in firing order, both its rockers loose: more turning, little to mix up.',
  },
  {
    key: 'companion',
    name: 'Companion cylinder’s valves rocking',
    line: 'Watch the companion’s valves rock; at that moment this cylinder is at its firing TDC. Needs no mark.',
  },
  {
    key: 'open-pair',
    name: 'By the valve that is fully open',
    line: 'When its partner valve is fully open, this one is farthest from its lobe. Needs no mark.',
  },
  {
    key: 'lobe-away',
    name: 'Lobe straight away, any angle',
    line: 'The fewest stops at any angle at all: for a cam that can be seen and a crank that can be turned freely.',
  },
  {
    key: 'cam-by-hand',
    name: 'Each cam turned by itself',
    line: 'A head on the bench, or on its block with the chain off: no crank is turned, each cam by its own hexagon.',
  },
];

/**
 * Says how a cam is turned by itself, where there is no crank to turn it, and what can be broken by it.
 *
 * @example camByHandInWords.length // 3
 */
export const camByHandInWords: readonly string[] = [
  'On the bench the head stands on blocks at its ends, so that every valve can open below it.',
  'One cam at a time, where the valves of two could meet: lay the other one in afterwards, or keep its lobes away.',
  'On its block with the chain or belt off: turn the crank first until no piston is near the top.',
];

/**
 * Lists the schools that may be chosen for a pattern.
 *
 * @example schoolsFor(pattern).map(({ key }) => key)
 */
export function schoolsFor({
  makersStops = [],
  marks,
}: Pick<Pattern, 'makersStops' | 'marks'>): typeof POSITION_SCHOOLS {
  const there: Partial<Readonly<Record<PositionSchool, boolean>>> = {
    maker: makersStops.length > 0,
    fewest: marks.length > 0,
  };
  return POSITION_SCHOOLS.filter(({ key }) => there[key] ?? true);
}

/**
 * Says what to do where the crank was turned past a stop: back and up again, or on for two turns where it may not be turned
 * back.
 *
 * @example gonePastInWords(pattern)
 */
export function gonePastInWords({ turnsBack = true, marks }: Pick<Pattern, 'turnsBack' | 'marks'>): string {
  if (marks.length === 0)
    return turnsBack
      ? 'Turn back until the piston has gone down by about the width of a hand on the wheel, then come up to the top again in the running direction: slack is then on the same side as when it runs.'
      : 'This engine is never turned back: its tensioner or belt may jump. Turn on in the running direction, two full turns, until the piston comes to the top again.';
  return turnsBack
    ? 'Turn back until the mark is about a hand’s width before its pointer, then come up to it again in the running direction: slack in the chain and gears is then on the same side as when it runs.'
    : 'This engine is never turned back: its tensioner or belt may jump. Turn on in the running direction, two full turns, until the mark comes up to its pointer again.';
}

/** `cylinder 5`, `cylinders 1 and 6`, each as its maker calls it */
function cylindersInWords(pattern: Pick<Pattern, 'makersNames'>, own: readonly string[]): string {
  const ids = own.map((id) => cylinderName(pattern, id));
  const names = ids.length > 1 ? `${ids.slice(0, -1).join(', ')} and ${ids.at(-1)}` : ids.join('');
  return `cylinder${ids.length > 1 ? 's' : ''} ${names}`;
}

/**
 * Says how the engine is turned, as somebody standing at it sees it.
 *
 * @example turningInWords(pattern) // 'clockwise seen from the front'
 */
export function turningInWords({ turns, seenFrom }: Pick<Pattern, 'turns' | 'seenFrom'>): string {
  return `${turns} seen from the ${seenFrom}`;
}

/** A mark in words, with where it is looked at from and what beside it is none: `the mark “2-5”, seen from the front, not the dot beside it`. */
function markInWords(pattern: Pick<Pattern, 'markNames'>, angle: number): string {
  const named = markNameAt(pattern, angle);
  if (!named) return 'the mark';
  return [
    `the mark “${named.words}”`,
    named.from && `seen from the ${FROM_WORDS[named.from]}`,
    named.decoys && `not ${named.decoys}`,
  ]
    .filter(Boolean)
    .join(', ');
}

const FROM_WORDS = { front: 'front', flywheel: 'flywheel end', left: 'left', right: 'right' } as const;

/** Where a stop is, on an engine that has no mark: by the piston that is at its top there, or from the last one that was. */
function positionInWords(pattern: Pattern, stop: PlannedStop) {
  const { cylinders } = pattern;
  const { angle, fires, rocks } = stop;
  if (fires.length > 0) return `until ${cylindersInWords(pattern, fires)} is at the top of its firing stroke`;
  if (rocks.length > 0) return `until ${cylindersInWords(pattern, rocks)} is at the top, its valves rocking`;
  if (stop.fullyOpen.length > 0) return watchInWords(pattern, stop).replace(/, $/, '');
  const since = (firesAt: number) => (angle - firesAt + 2 * TURN) % (2 * TURN);
  const last = [...cylinders].sort((a, b) => since(a.firesAt) - since(b.firesAt))[0]!;
  return `${degrees(since(last.firesAt))} past the top of cylinder ${cylinderName(pattern, last.id)}’s firing stroke`;
}

/**
 * Says how to get to a stop: how far, which way, to which mark; on an engine that has none, by which piston.
 *
 * @param from where the crank is now, in crank degrees; null where that is not known
 * @example wayToStop(pattern, plan.stops[1], 0) // 'Turn 360° on, clockwise seen from the front, to the mark'
 */
export function wayToStop(pattern: Pattern, stop: PlannedStop, from: number | null): string {
  const mark = markInWords(pattern, stop.angle);
  const cams = signAt(pattern, stop.angle)?.cams;
  const to = stop.marked
    ? `to ${mark}${cams ? `, the cams’ marks ${cams}` : ''}`
    : pattern.marks.length === 0
      ? positionInWords(pattern, stop)
      : `${watchInWords(pattern, stop)}to ${degrees(stop.angle % TURN)} past the first mark`;
  if (from === null) return `Turn ${turningInWords(pattern)} ${to}`;
  const turn = (((stop.angle - from) % (2 * TURN)) + 2 * TURN) % (2 * TURN);
  if (turn === 0) return `Here already: ${stop.marked ? `at ${mark}` : degrees(stop.angle)}`;
  return `Turn ${degrees(turn)} on, ${turningInWords(pattern)}, ${to}`;
}

/** The valve to watch on the way, where one then stands fully open: `until 5E is fully open, `. */
const watchInWords = (pattern: Pattern, { fullyOpen: [first] }: PlannedStop) =>
  first === undefined ? '' : `until ${bothNames(pattern, first)} is fully open, `;

/**
 * Lists lash points as they are read out at the bench, each by both its names where it has two.
 *
 * @example pointsInWords(pattern, ['1I', '2E']) // '1I, 2E'
 */
export const pointsInWords = (pattern: Pattern, keys: readonly string[], between = ', '): string =>
  keys.map((key) => bothNames(pattern, key)).join(between);

/** What has to be known where an engine has no mark, and is put in position by its pistons. */
export const NO_MARK_CAUTION =
  'This engine has no mark: see the piston at its very top, by eye or by a blunt probe on it. A probe in the plug hole can jam under its thread or mark the piston: it is straight and long enough to be held, and out before the crank is turned on.';

/**
 * Lists the independent signs that a stop is the right one of the two turns.
 *
 * @example signsInWords(pattern, plan.stops[0])[0] // 'at its pointer: the mark'
 */
export function signsInWords(pattern: Pattern, stop: PlannedStop): string[] {
  const signs: string[] = [];
  if (stop.marked) signs.push(`at its pointer: ${markInWords(pattern, stop.angle)}`);
  if (pattern.marks.length === 0 && stop.fires.length + stop.rocks.length > 0)
    signs.push('its piston is at the very top: by eye, or by a probe on it');
  if (stop.fires.length > 0)
    signs.push(`${cylindersInWords(pattern, stop.fires)} at firing TDC: both sides loose`);
  if (stop.rocks.length > 0)
    signs.push(
      `${cylindersInWords(pattern, stop.rocks)} with its valves rocking: both move as the crank is moved a little`,
    );
  const { cams, rotor } = signAt(pattern, stop.angle) ?? {};
  if (cams) signs.push(`the cams’ marks: ${cams}`);
  if (rotor) signs.push(rotor);
  signs.push(...justMoved(pattern, stop.angle));
  if (stop.fullyOpen.length > 0) signs.push(`fully open: ${pointsInWords(pattern, stop.fullyOpen)}`);
  signs.push(`lobes away from their followers: ${pointsInWords(pattern, stop.points)}`);
  return signs;
}

/**
 * Lists what is looked for when the marks are checked: each mark by its name, and how cams and rotor stand at a position. Nothing where the
 * sheet says nothing of them.
 *
 * @example marksInWords(pattern) // []
 */
export function marksInWords(pattern: Pick<Pattern, 'markNames' | 'positionSigns'>): string[] {
  const { markNames = [], positionSigns = [] } = pattern;
  return [
    ...markNames.map(({ at }) => `${degrees(at)}: ${markInWords(pattern, at)}`),
    ...positionSigns.map(
      ({ at, cams, rotor }) =>
        `${degrees(at)}, ${at < TURN ? 'first' : 'second'} turn: ${[cams && `the cams’ marks ${cams}`, rotor]
          .filter(Boolean)
          .join(', ')}`,
    ),
  ];
}

/** How near to a stop a valve closed or opens, so that it is seen there. */
const JUST = 12;

/** The valves that have just closed at an angle, and those that begin to open: a sign of its own, where the timing is known. */
function justMoved(pattern: Pattern, angle: number): string[] {
  if (pattern.timing.assumed) return [];
  const moved = lashPoints(pattern).flatMap((point) => {
    if (point.role !== 'intake' && point.role !== 'exhaust') return [];
    const { start, length } = openSpan(point, pattern.cylinders, pattern.timing);
    const since = (from: number) => (((angle - from) % CYCLE) + CYCLE) % CYCLE;
    if (point.role === 'intake' && since(start + length) <= JUST)
      return [`cylinder ${cylinderName(pattern, point.cylinder)}: intake just closed`];
    return point.role === 'exhaust' && apart(start, angle) <= JUST && since(start) > JUST
      ? [`cylinder ${cylinderName(pattern, point.cylinder)}: exhaust just opening`]
      : [];
  });
  return [...new Set(moved)];
}

/**
 * Says where the crank stands while a cam comes out, what locks it, and what comes before any cap is slackened; nothing where the sheet
 * does not say.
 *
 * @example camsOutInWords(pattern) // null
 */
export function camsOutInWords(pattern: Pattern): string | null {
  const { camsOut } = pattern;
  if (!camsOut) return null;
  const { at, lockedBy, first } = camsOut;
  const signs = at === null ? undefined : signAt(pattern, at);
  const where =
    at === null
      ? ''
      : pattern.marks.some((mark) => apart(mark, at) < 1)
        ? `at ${markInWords(pattern, at)}${at >= TURN ? ', the second turn' : ''}`
        : `at ${degrees(at)}`;
  return [
    ['Crank', where, lockedBy && `locked by ${lockedBy}`].filter(Boolean).join(' '),
    signs?.cams && `the cams’ marks ${signs.cams}`,
    first && `first: ${first}`,
  ]
    .filter(Boolean)
    .join('; ');
}

const degrees = (angle: number) => `${Math.round(angle * 10) / 10}°`;
