import { CYCLE, inCycle, type OpenSpan } from './openSpan.ts';
import { marginOf } from './margin.ts';
import type { Pattern, Role } from '../sheets/pattern.ts';
import { spannedPoints } from './valveGear.ts';

/** A full turn of the crank, in degrees. */
export const TURN = 360;

/** Points of one cylinder that move together: drawn as one track of the crank wheel. */
export interface WheelTrack {
  readonly keys: readonly string[];
  readonly cylinder: string;
  readonly role: Role;
  /** where its points are off their base circle */
  readonly span: OpenSpan;
  /** where its points may be measured: from `from` (0 to under 720) for `length` crank degrees */
  readonly from: number;
  readonly length: number;
  /** where its middle lies in its turn's band, 0 at the inner edge to 1 at the outer */
  readonly place: number;
  /** how much of the band it takes, 0 to 1 */
  readonly share: number;
}

/** Room between the tracks of two cylinders, in tracks. */
const BETWEEN_CYLINDERS = 0.8;

/** How many tracks a band has room for, at the least. */
const LEAST_TRACKS = 5;

/** A piece of a track within one turn of the crank; degrees from the mark at the pointer, 0 to 360. */
export interface WheelArc {
  /** 0 in the first turn of the cycle, 1 in the second */
  readonly turn: 0 | 1;
  readonly from: number;
  readonly to: number;
}

/**
 * Lays out a crank wheel: one track for each group of points that move together, cylinder by cylinder. A closing side
 * moves with its opening side and stands on its track.
 *
 * @param shown only tracks with one of these points, with the room to themselves; every track where it is left out
 * @example layOutWheel(inlineFour).length // 8: an intake and an exhaust track a cylinder
 */
export function layOutWheel(pattern: Pattern, shown?: ReadonlySet<string>): WheelTrack[] {
  const tracks = new Map<string, Omit<WheelTrack, 'place' | 'share'>>();
  for (const { point, span } of spannedPoints(pattern)) {
    const role = point.role.replace('-closing', '') as Role;
    const name = `${point.cylinder} ${role} ${span.start} ${span.length}`;
    const track = tracks.get(name) ?? {
      keys: [],
      cylinder: point.cylinder,
      role,
      span,
      from: inCycle(span.start + span.length + marginOf(pattern)),
      length: Math.max(0, CYCLE - span.length - 2 * marginOf(pattern)),
    };
    tracks.set(name, { ...track, keys: [...track.keys, point.key] });
  }
  const wanted = [...tracks.values()].filter(({ keys }) => !shown || keys.some((key) => shown.has(key)));
  return spreadOut(wanted);
}

/** Gives every track its place in the band, the tracks of one cylinder close together. */
function spreadOut(tracks: readonly Omit<WheelTrack, 'place' | 'share'>[]): WheelTrack[] {
  let at = 0;
  const middles = tracks.map((track, index) => {
    if (index > 0 && tracks[index - 1]!.cylinder !== track.cylinder) at += BETWEEN_CYLINDERS;
    at += 1;
    return at - 0.5;
  });
  // few tracks are not drawn fatter than a few: they stand in the middle of their band
  const whole = Math.max(at, LEAST_TRACKS);
  const before = (whole - at) / 2;
  return tracks.map((track, index) => ({
    ...track,
    place: (before + middles[index]!) / whole,
    share: 1 / whole,
  }));
}

/**
 * Cuts a stretch of the cycle into pieces that lie within one turn each, as they are drawn.
 *
 * @param from 0 to under 720
 * @example arcsOf(300, 200) // [{ turn: 0, from: 300, to: 360 }, { turn: 1, from: 0, to: 140 }]
 */
export function arcsOf(from: number, length: number): WheelArc[] {
  const arcs: WheelArc[] = [];
  let at = inCycle(from);
  let left = Math.min(length, CYCLE);
  while (left > 1e-9) {
    const turn = at >= TURN - 1e-9 ? 1 : 0;
    const into = at - turn * TURN;
    const piece = Math.min(left, TURN - into);
    arcs.push({ turn, from: into, to: into + piece });
    at = inCycle(at + piece);
    left -= piece;
  }
  return arcs;
}

/**
 * Finds a place on the wheel: x to the right, y down, the mark at the top. Angles grow the way the engine turns.
 *
 * @param radius in the unit wanted back
 * @example onWheel('clockwise', 100, 90) // { x: 100, y: 0 }
 */
export function onWheel(
  turns: Pattern['turns'],
  radius: number,
  degrees: number,
): { readonly x: number; readonly y: number } {
  const radians = (degrees * Math.PI) / 180;
  const across = radius * Math.sin(radians);
  return { x: round(turns === 'clockwise' ? across : -across), y: round(-radius * Math.cos(radians)) };
}

/**
 * Writes a piece of a track as an SVG path round 0, 0.
 *
 * @example ringPath('clockwise', 100, { from: 0, to: 90 }) // 'M0 -100A100 100 0 0 1 100 0'
 */
export function ringPath(
  turns: Pattern['turns'],
  radius: number,
  { from, to }: Pick<WheelArc, 'from' | 'to'>,
): string {
  // a whole circle has no two ends: it is drawn as two halves
  const middles = to - from > TURN - 1e-6 ? [from + TURN / 2] : [];
  const steps = [from, ...middles, to];
  const sweep = turns === 'clockwise' ? 1 : 0;
  return steps
    .map((degrees, index) => {
      const { x, y } = onWheel(turns, radius, degrees);
      if (index === 0) return `M${x} ${y}`;
      const large = degrees - steps[index - 1]! > TURN / 2 ? 1 : 0;
      return `A${radius} ${radius} 0 ${large} ${sweep} ${x} ${y}`;
    })
    .join('');
}

/** How a wheel of a given radius is divided: the pulley in the middle, the two turns round it, the rim. */
export interface WheelBands {
  readonly pulley: number;
  /** inner and outer radius of each turn's band */
  readonly turns: readonly [readonly [number, number], readonly [number, number]];
}

/**
 * Divides a wheel: the first turn lies inside, the second round it.
 *
 * @example bandsOf(200).turns[1][1] // 180
 */
export function bandsOf(radius: number): WheelBands {
  const share = (part: number) => Math.round(radius * part * 100) / 100;
  return {
    pulley: share(0.25),
    turns: [
      [share(0.29), share(0.57)],
      [share(0.62), share(0.9)],
    ],
  };
}

/**
 * Finds the radius of a place in one turn's band.
 *
 * @param place 0 at the inner edge to 1 at the outer
 * @example radiusIn([60, 120], 0.5) // 90
 */
export function radiusIn([inner, outer]: readonly [number, number], place: number): number {
  return round(inner + (outer - inner) * place);
}

const round = (value: number) => Math.round(value * 100) / 100 + 0;
