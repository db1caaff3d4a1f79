import { lashPoints, type LashPoint } from './lashPoints.ts';
import { valvesAlong } from './makersNames.ts';
import { valvesOf } from './trainPlaces.ts';
import type { Bank, Pattern, Role } from './pattern.ts';

/** A lash point's real place on the head, seen from above; units of one cell, x from the front, y from behind. */
export interface HeadPlace {
  readonly point: LashPoint;
  readonly x: number;
  readonly y: number;
}

/** One cylinder's bore below the head. */
export interface Bore {
  readonly cylinder: string;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  /** where its name is written: in its middle, or clear of the valves where they stand there */
  readonly nameY: number;
}

/** One head's outline. */
export interface HeadOutline {
  readonly bank: Bank;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Everything a head map draws, in cells, with the front of the engine at the left. */
export interface HeadMap {
  readonly width: number;
  readonly height: number;
  readonly heads: readonly HeadOutline[];
  readonly bores: readonly Bore[];
  readonly places: readonly HeadPlace[];
}

/** Rows of a head, counted from the intake side: intakes and exhausts across from each other, or all in one row. */
const ROWS: Readonly<Record<'across' | 'one-row', Readonly<Record<Role, number>>>> = {
  across: { 'intake-closing': 0, intake: 1, exhaust: 2, 'exhaust-closing': 3, brake: 2 },
  'one-row': { 'intake-closing': 0, intake: 1, exhaust: 1, 'exhaust-closing': 0, brake: 2 },
};
/** How far a valve that leans stands off the middle of its row. */
const LEANING = 0.3;
const GAP_BETWEEN_CYLINDERS = 0.25;
/** Room across the middle of a head, between its intakes and its exhausts. */
const MIDDLE = 0.42;
const GAP_BETWEEN_HEADS = 0.8;
const EDGE = 0.35;
/** The same where all valves stand in one row: the names of the cylinders stand in it. */
const ROW_EDGE = 0.5;

/**
 * Lays out the head, or both heads of a V or flat engine, as seen from above with the front at the left.
 *
 * Intakes of the two banks face each other across the valley; an in-line head has its exhausts on the side its
 * pattern says; where all valves stand in one row, they stand as the pattern lists them from the front. The far bank of a V
 * sits half a cell back, as its rods do on the crank.
 *
 * @example layOutHeads(pattern).places.find(({ point }) => point.key === '1E')
 */
export function layOutHeads(pattern: Pattern): HeadMap {
  const points = lashPoints(pattern);
  const row = pattern.valveRow;
  const rowOf = ROWS[row ? 'one-row' : 'across'];
  const pitch = cylinderPitch(pattern, points, rowOf);
  const rows = rowsUsed(points, rowOf);
  const middle = row ? (row.splayed ? LEANING * 2 : 0) : MIDDLE;
  const edge = row ? ROW_EDGE : EDGE;
  const headHeight = rows.length + middle + edge * 2;
  const banks: Bank[] = pattern.cylinders.some(({ bank }) => bank === 'B') ? ['B', 'A'] : ['A'];
  const heads: HeadOutline[] = [];
  const bores: Bore[] = [];
  const places: HeadPlace[] = [];
  banks.forEach((bank, order) => {
    const cylinders = pattern.cylinders.filter((cylinder) => cylinder.bank === bank);
    const top = order * (headHeight + GAP_BETWEEN_HEADS);
    const left = bank === 'B' ? 0.5 : 0;
    const exhaustBehind = banks.length === 2 ? bank === 'B' : pattern.exhaustSide === 'left';
    const longest = Math.max(...cylinders.map(({ place }) => place));
    heads.push({ bank, x: left, y: top, width: longest * pitch + EDGE, height: headHeight });
    for (const cylinder of cylinders) {
      const centre = left + EDGE / 2 + (cylinder.place - 0.5) * pitch;
      const radius = Math.min(pitch - GAP_BETWEEN_CYLINDERS * 0.6, headHeight) / 2;
      const boreY = top + headHeight / 2;
      bores.push({ cylinder: cylinder.id, x: centre, y: boreY, radius, nameY: row ? top + edge / 2 : boreY });
      const own = points.filter((point) => point.cylinder === cylinder.id);
      for (const point of own) {
        const fromIntakes = rows.indexOf(rowOf[point.role]);
        const across = exhaustBehind ? rows.length - 1 - fromIntakes : fromIntakes;
        const y = top + edge + across + 0.5;
        if (row) {
          const lean = row.splayed
            ? LEANING * (point.role.startsWith('intake') === exhaustBehind ? 2 : 0)
            : 0;
          places.push({ point, x: centre + alongRow(pattern, bank, point), y: y + lean });
          continue;
        }
        const abreast = own.filter((other) => rowOf[other.role] === rowOf[point.role]);
        const x = centre + abreast.indexOf(point) - (abreast.length - 1) / 2;
        const beyondMiddle = across >= rows.length / 2 ? middle : 0;
        places.push({ point, x, y: y + beyondMiddle });
      }
    }
  });
  return {
    width: Math.max(...heads.map((head) => head.x + head.width)),
    height: Math.max(...heads.map((head) => head.y + head.height)),
    heads,
    bores,
    places,
  };
}

/** Where a point stands in the one row of its head, in cells from the middle of its cylinder; under a bridge between its valves. */
function alongRow(pattern: Pattern, bank: Bank, { key, cylinder, role }: LashPoint): number {
  const own = valvesOf(pattern).filter((valve) => valve.cylinder === cylinder);
  const order = valvesAlong(pattern, bank).filter((valve) => own.some(({ key: its }) => its === valve));
  const opened = own.filter(({ point, role: its }) =>
    role === 'brake' ? its === 'exhaust' : point === key.replace('-c', ''),
  );
  const places = opened.map((valve) => order.indexOf(valve.key));
  return places.reduce((sum, place) => sum + place, 0) / places.length - (order.length - 1) / 2;
}

type Rows = Readonly<Record<Role, number>>;

function rowsUsed(points: readonly LashPoint[], rowOf: Rows): number[] {
  return [...new Set(points.map(({ role }) => rowOf[role]))].sort((a, b) => a - b);
}

function cylinderPitch(pattern: Pattern, points: readonly LashPoint[], rowOf: Rows): number {
  if (pattern.valveRow) return pattern.valves.intake + pattern.valves.exhaust + GAP_BETWEEN_CYLINDERS;
  const widest = Math.max(
    ...pattern.cylinders.flatMap(({ id }) =>
      rowsUsed(points, rowOf).map(
        (row) => points.filter((p) => p.cylinder === id && rowOf[p.role] === row).length,
      ),
    ),
  );
  return Math.max(2, widest) + GAP_BETWEEN_CYLINDERS;
}

/** A step on a head map. */
export type Step = 'left' | 'right' | 'up' | 'down';

/**
 * Finds the point a person means by an arrow key: the nearest one in that direction, straight ahead preferred.
 *
 * @returns the key reached, or the same key at an edge
 * @example stepOnHead(map, '1I', 'right') // '2I'
 */
export function stepOnHead(map: HeadMap, from: string, step: Step): string {
  const start = map.places.find(({ point }) => point.key === from);
  if (!start) return from;
  const along = step === 'left' || step === 'right' ? 'x' : 'y';
  const across = along === 'x' ? 'y' : 'x';
  const sign = step === 'left' || step === 'up' ? -1 : 1;
  let best = from;
  let bestCost = Infinity;
  for (const place of map.places) {
    const ahead = (place[along] - start[along]) * sign;
    if (ahead < 0.1) continue;
    const aside = Math.abs(place[across] - start[across]);
    if (along === 'x' && aside > 0.6) continue;
    const cost = ahead + aside * 2;
    if (cost < bestCost) [best, bestCost] = [place.point.key, cost];
  }
  return best;
}
