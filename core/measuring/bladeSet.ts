import { tenthsFromMm } from '../length/index.ts';

/** What is known of a set's blades; lengths in mm, blades named by what is stamped on them. */
export interface BladeSet {
  readonly blades: readonly number[];
  /** not in the set any more */
  readonly missing: readonly number[];
  /** with a worn or bent tip: they feel thicker than they are, and are not gone by */
  readonly worn: readonly number[];
  /** what a micrometer says of a blade, where it is not what is stamped on it */
  readonly measured: readonly { readonly blade: number; readonly is: number }[];
}

/** One blade of a set. */
export interface Blade {
  /** mm, as it is called */
  readonly stamped: number;
  /** mm, as thick as it is: what a gap is judged by */
  readonly is: number;
  /** it is there, and its tip is sound */
  readonly usable: boolean;
}

/** Equal to the tenth of a micrometre that is kept. */
const isSame = (a: number, b: number) => tenthsFromMm(a) === tenthsFromMm(b);

/** mm: a blade that measures further off than this is another blade. */
const FARTHEST_OFF = 0.02;

/**
 * Lists a set's blades with what each of them really is, in the order of the set.
 *
 * Rule: a gap is proved by how thick a blade is, not by what is stamped on it; a blade with a worn tip proves nothing.
 *
 * @example bladesOf(blades).filter(({ usable }) => usable).map(({ is }) => is) // [0.25, 0.298]
 */
export function bladesOf({ blades, missing, worn, measured }: BladeSet): readonly Blade[] {
  return blades.map((stamped) => ({
    stamped,
    is: measured.find(({ blade }) => blade === stamped)?.is ?? stamped,
    usable: !missing.includes(stamped) && !worn.includes(stamped),
  }));
}

/**
 * Names a thickness as it is stamped on the blade that has it, one that may be gone by before one that may not; a thickness no
 * blade has stays what it is.
 *
 * @example stampOf(bladesOf(blades), 0.298) // 0.3
 */
export function stampOf(blades: readonly Blade[], thickness: number): number {
  const same = blades.filter(({ is }) => isSame(is, thickness));
  return (same.find(({ usable }) => usable) ?? same[0])?.stamped ?? thickness;
}

/**
 * Says how thick the blade is that somebody calls by its stamp; a figure that is on no blade stays what it is.
 *
 * @example thicknessOf(bladesOf(blades), 0.3) // 0.298
 */
export function thicknessOf(blades: readonly Blade[], stamped: number): number {
  return blades.find((blade) => isSame(blade.stamped, stamped))?.is ?? stamped;
}

/**
 * Says whether a blade may be what was measured: within 0.02 mm of what is stamped on it. Farther off, it is another blade.
 *
 * @example mayBeBlade(0.3, 0.25) // false
 */
export function mayBeBlade(stamped: number, is: number): boolean {
  return is > 0 && Math.abs(tenthsFromMm(is) - tenthsFromMm(stamped)) <= tenthsFromMm(FARTHEST_OFF);
}
