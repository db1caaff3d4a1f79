/** An adjuster and what is wanted of it. Lengths in mm. */
export interface ScrewTurnInput {
  readonly measured: number;
  readonly target: number;
  /** thread pitch of the adjuster */
  readonly pitch: number;
  /** which side the screw is on: at the valve end, at the pushrod end, or a nut that carries the pivot */
  readonly screwSide: 'valve' | 'pushrod' | 'pivot';
  readonly rockerRatio: number;
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
 * ratio; a nut that carries the pivot moves both ends, 1 + ratio.
 *
 * @returns degrees to a thousandth, and which way
 * @throws RangeError when pitch or ratio is not above zero
 * @example
 * screwTurn({ measured: 0.18, target: 0.14, pitch: 1, screwSide: 'valve', rockerRatio: 1.7 })
 * // { degrees: -14.4, direction: 'tighten' }
 * Rule: lever geometry of the rocker.
 */
export function screwTurn(input: ScrewTurnInput): ScrewTurn {
  const { measured, target, pitch, screwSide, rockerRatio, lockShift = 0 } = input;
  if (!(pitch > 0)) throw new RangeError('pitch must be above 0');
  if (!(rockerRatio > 0)) throw new RangeError('rockerRatio must be above 0');
  const gain = { valve: 1, pushrod: rockerRatio, pivot: 1 + rockerRatio }[screwSide];
  const exact = ((target - lockShift - measured) / gain / pitch) * 360;
  const rounded = Math.round(exact * 1000) / 1000;
  if (rounded === 0) return { degrees: 0, direction: 'none' };
  return { degrees: rounded, direction: rounded > 0 ? 'loosen' : 'tighten' };
}

/**
 * Says a turn the way a person at the adjuster counts it: in degrees to the nearest five, and as a part of a turn.
 *
 * @example turnInWords(-106.7) // '105° (about ¼ turn)'
 */
export function turnInWords(degrees: number): string {
  const size = Math.abs(degrees);
  const near = Math.round(size / 5) * 5;
  const eighths = Math.round(size / 45);
  if (near === 0) return 'less than 5°';
  if (eighths === 0) return `${near}°`;
  const whole = Math.floor(eighths / 8);
  const part = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'][eighths % 8]!;
  const turns = `${whole > 0 ? whole : ''}${part}`;
  return `${near}° (about ${turns} ${eighths > 8 ? 'turns' : 'turn'})`;
}
