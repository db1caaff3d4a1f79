import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { handierStack, stacksOf, type Stack } from './bladeStack.ts';

/** A blade, or blades held together; lengths in mm, thinnest first. */
export interface HeldBlades {
  readonly blades: readonly number[];
  readonly thickness: number;
}

/** The two tests of the go and no-go school for one band. */
export interface GoNoGo {
  /** must go: the smallest thickness at or above the least clearance */
  readonly go: HeldBlades;
  /** must not go: the largest at or under the greatest */
  readonly noGo: HeldBlades;
}

/**
 * Names the two blades, or stacks, that prove a band in two tries: one that must go, one that must not.
 *
 * @param input blades and limits in mm; `maxStack` blades may be held together
 * @returns null where the blades owned cannot prove the band that way: no two lie in it, the first under the second
 * @example goNoGo({ blades: [0.1, 0.15, 0.2, 0.25], maxStack: 1, spec: { min: 0.13, max: 0.22 } }) // go 0.15, no-go 0.2
 * Rule: a point that lets the one in and not the other lies wholly in its band.
 */
export function goNoGo(input: {
  readonly blades: readonly number[];
  readonly maxStack: number;
  readonly spec: { readonly min: number; readonly max: number };
}): GoNoGo | null {
  const [min, max] = [tenthsFromMm(input.spec.min), tenthsFromMm(input.spec.max)];
  const inside = stacksOf(input.blades.map(tenthsFromMm), input.maxStack)
    .filter(({ thickness }) => thickness >= min && thickness <= max)
    .sort((a, b) => a.thickness - b.thickness || handierStack(a, b));
  const go = inside[0];
  const thickest = inside.at(-1)?.thickness;
  const noGo = inside.find(({ thickness }) => thickness === thickest);
  if (!go || !noGo || go.thickness >= noGo.thickness) return null;
  return { go: heldBlades(go), noGo: heldBlades(noGo) };
}

/** A stack with its lengths in mm. */
export const heldBlades = ({ blades, thickness }: Stack): HeldBlades => ({
  blades: blades.map(mmFromTenths),
  thickness: mmFromTenths(thickness),
});
