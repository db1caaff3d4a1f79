import { leverageOf, meansFor, type GapAt, type Means, type Pattern, type Role } from '../sheets/index.ts';

/** Where an adjuster acts. */
export type ScrewSide = 'valve' | 'pushrod' | 'pivot' | 'finger-pivot';

/** An adjuster and what is wanted of it. Lengths in mm. */
export interface ScrewTurnInput {
  readonly measured: number;
  readonly target: number;
  /** thread pitch of the adjuster; null where the source does not say */
  readonly pitch: number | null;
  /** where it acts: at the valve end, at the pushrod end, as a nut that carries a rocker's pivot, or under a finger's ball */
  readonly screwSide: ScrewSide;
  /** null where the source does not say */
  readonly rockerRatio: number | null;
  /** where the gap is measured: at the valve, or at the cam over a finger's pad; at the valve if absent */
  readonly gapAt?: GapAt | undefined;
  /** mean change of the gap when this operator tightens the lock nut (after − before); 0 where absent */
  readonly lockShift?: number | undefined;
}

/** How far to turn. Positive degrees loosen, which opens the gap. */
export interface ScrewTurn {
  readonly degrees: number;
  readonly direction: 'loosen' | 'tighten' | 'none';
}

/**
 * Works out how far to turn an adjuster so that the gap is on target after the lock nut is tight.
 *
 * A screw at the valve end moves the gap by its pitch a turn; at the pushrod end the rocker multiplies it by its
 * ratio; a nut that carries a rocker's pivot moves both ends, 1 + ratio; a screw under the ball at a finger's end moves it by
 * ratio − 1, and the ball goes down to open the gap. Where the gap is taken at the cam, each is divided by the ratio.
 *
 * @returns degrees to a thousandth, and which way; null where the pitch, or a ratio that it hangs on, is not known
 * @throws RangeError when pitch or ratio is not above zero, or a finger's ratio is not above 1
 * @example
 * screwTurn({ measured: 0.18, target: 0.14, pitch: 1, screwSide: 'valve', rockerRatio: 1.7 })
 * // { degrees: -14.4, direction: 'tighten' }
 * Rule: lever geometry of the rocker.
 */
export function screwTurn(input: ScrewTurnInput): ScrewTurn | null {
  const { measured, target, pitch, screwSide, rockerRatio, gapAt = 'valve', lockShift = 0 } = input;
  if (pitch !== null && !(pitch > 0)) throw new RangeError('pitch must be above 0');
  const gain = screwGain({ screwSide, rockerRatio, gapAt });
  if (pitch === null || gain === null) return null;
  const exact = ((target - lockShift - measured) / gain / pitch) * 360;
  const rounded = Math.round(exact * 1000) / 1000;
  if (rounded === 0) return { degrees: 0, direction: 'none' };
  return { degrees: rounded, direction: rounded > 0 ? 'loosen' : 'tighten' };
}

/**
 * Says by how much a gap changes, where it is taken, for a millimetre that its adjuster moves; null where it hangs on a ratio that is not
 * known: at the valve's end it does not, unless the gap is taken at the cam.
 *
 * @throws RangeError as `screwTurn` does
 * @example screwGain({ screwSide: 'finger-pivot', rockerRatio: 1.5, gapAt: 'cam' }) // 0.333
 */
export function screwGain({
  screwSide,
  rockerRatio,
  gapAt,
}: Pick<ScrewTurnInput, 'screwSide' | 'rockerRatio' | 'gapAt'>): number | null {
  if (rockerRatio === null) return screwSide === 'valve' && gapAt !== 'cam' ? 1 : null;
  if (!(rockerRatio > 0)) throw new RangeError('rockerRatio must be above 0');
  if (screwSide === 'finger-pivot' && !(rockerRatio > 1))
    throw new RangeError('rockerRatio must be above 1 where the pivot is at the end of a finger');
  const atValve = {
    valve: 1,
    pushrod: rockerRatio,
    pivot: 1 + rockerRatio,
    'finger-pivot': rockerRatio - 1,
  }[screwSide];
  return gapAt === 'cam' ? atValve / rockerRatio : atValve;
}

/** Where an adjuster of a sheet acts. */
export const screwSideOf = (means: Extract<Means, { readonly kind: 'screw' | 'pivot-nut' }>): ScrewSide =>
  means.kind === 'pivot-nut' || means.end === 'eccentric' ? 'pivot' : means.end;

/**
 * Names the pattern of the adjuster at a role: adjusters of one thread, one way of locking and one gain move alike as they are
 * locked, whatever engine they are in; what was learned on one says nothing of another.
 *
 * @returns null where nothing is locked, or its thread or a ratio that it hangs on is not known
 * @example adjusterAt(pattern, 'intake') // 'screw 1 lock-nut 1.000'
 */
export function adjusterAt(pattern: Pattern, role: Role): string | null {
  const means = meansFor(pattern, role);
  if (means.kind !== 'screw' && means.kind !== 'pivot-nut') return null;
  const { rockerRatio, gapAt } = leverageOf(pattern, role);
  const gain = screwGain({ screwSide: screwSideOf(means), rockerRatio, gapAt });
  return means.pitch === null || gain === null
    ? null
    : `${means.kind} ${means.pitch} ${means.locking} ${gain.toFixed(3)}`;
}

/**
 * Says a turn the way a person at the adjuster counts it: in degrees to the nearest five; as a part of a turn too, where one
 * is within 5°; and in flats of a six-sided nut, where it is the nut itself that turns.
 *
 * @param nutTurns the nut is what is turned (a pivot nut); a lock nut only holds what a screwdriver turned
 * @example turnInWords(-92) // '90° (¼ turn)'
 * @example turnInWords(61, true) // '60° (1 flat)'
 */
export function turnInWords(degrees: number, nutTurns = false): string {
  const size = Math.abs(degrees);
  const near = Math.round(size / 5) * 5;
  if (near === 0) return 'less than 5°';
  const parts = [partOfTurn(size), ...(nutTurns ? [inFlats(size)] : [])].filter((part) => part !== null);
  return parts.length > 0 ? `${near}° (${parts.join(', ')})` : `${near}°`;
}

/** How far a turn may be from a named part of one and still be called that, in degrees. */
const NEAR_ENOUGH = 5;
const EIGHTH = 45;
const FLAT = 60;

function partOfTurn(size: number): string | null {
  const eighths = Math.round(size / EIGHTH);
  if (eighths === 0 || Math.abs(size - eighths * EIGHTH) > NEAR_ENOUGH) return null;
  const whole = Math.floor(eighths / 8);
  const part = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'][eighths % 8]!;
  return `${whole > 0 ? whole : ''}${part} ${eighths > 8 ? 'turns' : 'turn'}`;
}

function inFlats(size: number): string | null {
  const halves = Math.round(size / (FLAT / 2));
  if (halves === 0 || Math.abs(size - (halves * FLAT) / 2) > NEAR_ENOUGH) return null;
  const whole = Math.floor(halves / 2);
  return `${whole > 0 ? whole : ''}${halves % 2 ? '½' : ''} ${halves > 2 ? 'flats' : 'flat'}`;
}
