import type { MarkName, Pattern, PositionSign } from '../sheets/pattern.ts';
import { TURN } from './crankWheel.ts';
import { tableStops } from './makersTable.ts';
import { apart, CYCLE } from './openSpan.ts';

/** How near an angle counts as being at a position that has a name or a sign. */
const AT_POSITION = 1;

/** Whether two angles of the crank have one mark at the pointer: it comes round twice in a cycle. */
const isSameMark = (a: number, b: number): boolean => Math.min(apart(a, b), apart(a + TURN, b)) < AT_POSITION;

/**
 * Finds what a mark is called that stands at its pointer with the crank at an angle: a mark comes round twice in a cycle.
 *
 * @example markNameAt({ markNames: [{ at: 120, words: '2-5', from: null, decoys: '' }] }, 480)?.words // '2-5'
 */
export function markNameAt(
  { markNames = [] }: Pick<Pattern, 'markNames'>,
  angle: number,
): MarkName | undefined {
  return markNames.find(({ at }) => isSameMark(angle, at));
}

/**
 * Finds what is seen at a position besides its mark; cams and rotor come round once in a cycle.
 *
 * @example signAt({ positionSigns: [{ at: 0, cams: 'letters up', rotor: '' }] }, 360) // undefined
 */
export function signAt(
  { positionSigns = [] }: Pick<Pattern, 'positionSigns'>,
  angle: number,
): PositionSign | undefined {
  return positionSigns.find(({ at }) => apart(at, angle) < AT_POSITION);
}

/**
 * Says whether an engine is stopped at an angle by any school that goes by the crank: at a mark, where a cylinder fires or its companion
 * does, or where the maker's own table has a position. Schools at any angle are not asked.
 *
 * @example stopsAt(inlineFour, 90) // false
 */
export function stopsAt(pattern: Pattern, angle: number): boolean {
  const positions = [
    ...pattern.marks,
    ...pattern.cylinders.flatMap(({ firesAt }) => [firesAt, (firesAt + TURN) % CYCLE]),
    ...tableStops(pattern).map((stop) => stop.angle),
  ];
  return positions.some((at) => apart(at, angle) < AT_POSITION);
}

/** A picture of a sheet: of a mark, which comes round twice in a cycle, or of how the cams stand, which does so once. */
export interface PositionPicture {
  /** crank degrees, 0 to under 720 */
  readonly at: number;
  readonly of: 'mark' | 'cams';
}

/**
 * Lists the pictures of a sheet that show what is seen with the crank at an angle.
 *
 * @example picturesAt([{ at: 120, of: 'mark' }], 480).length // 1
 */
export function picturesAt<Picture extends PositionPicture>(
  pictures: readonly Picture[],
  angle: number,
): readonly Picture[] {
  return pictures.filter(({ at, of }) =>
    of === 'mark' ? isSameMark(at, angle) : apart(at, angle) < AT_POSITION,
  );
}
