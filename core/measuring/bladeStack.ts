import { mmFromTenths, tenthsFromMm, type Tenths } from '../length/index.ts';

/** One blade, or several different ones held together. */
export interface Stack {
  /** thinnest first, in tenths of a micrometre */
  readonly blades: readonly Tenths[];
  readonly thickness: Tenths;
}

/**
 * Lists every stack of up to `most` different blades, each thinnest first.
 *
 * @param blades thicknesses owned, in tenths of a micrometre; a thickness owned twice counts once
 * @param most how many may be held together, from 1
 * @example stacksOf([500, 1000], 2).length // 3
 */
export function stacksOf(blades: readonly Tenths[], most: number): Stack[] {
  const owned = [...new Set(blades)].sort((a, b) => a - b);
  const stacks: Stack[] = [];
  const grow = (from: number, held: readonly Tenths[], thickness: Tenths) => {
    for (let i = from; i < owned.length; i += 1) {
      const stack = { blades: [...held, owned[i]!], thickness: thickness + owned[i]! };
      stacks.push(stack);
      if (stack.blades.length < most) grow(i + 1, stack.blades, stack.thickness);
    }
  };
  if (most > 0) grow(0, [], 0);
  return stacks;
}

/**
 * Orders two stacks of equal merit: fewer blades first, then the thinner first blade, and so on.
 */
export function handierStack(a: Stack, b: Stack): number {
  if (a.blades.length !== b.blades.length) return a.blades.length - b.blades.length;
  const differs = a.blades.findIndex((blade, i) => blade !== b.blades[i]);
  return differs < 0 ? 0 : a.blades[differs]! - b.blades[differs]!;
}

/** The stack nearest a wanted thickness; lengths in mm, `error` positive where it is thicker. */
export interface NearestStack {
  readonly blades: readonly number[];
  readonly thickness: number;
  readonly error: number;
}

/**
 * Finds the stack nearest a wanted thickness.
 *
 * @param input blades and target in mm; `maxStack` blades may be held together
 * @returns null where no blade is owned
 * @example bladeStack({ blades: [0.05, 0.3], target: 0.35, maxStack: 2 }) // { blades: [0.05, 0.3], thickness: 0.35, error: 0 }
 */
export function bladeStack(input: {
  readonly blades: readonly number[];
  readonly target: number;
  readonly maxStack: number;
}): NearestStack | null {
  const target = tenthsFromMm(input.target);
  const nearest = stacksOf(input.blades.map(tenthsFromMm), input.maxStack).sort(
    (a, b) => Math.abs(a.thickness - target) - Math.abs(b.thickness - target) || handierStack(a, b),
  )[0];
  if (!nearest) return null;
  return {
    blades: nearest.blades.map(mmFromTenths),
    thickness: mmFromTenths(nearest.thickness),
    error: mmFromTenths(nearest.thickness - target),
  };
}
