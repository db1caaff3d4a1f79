import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { handierStack, stacksOf, type HeldBlades, type Stack } from '../measuring/index.ts';

/** The two blades an adjuster is set between: one that must go, one that must then not; null where the bench has none. */
export interface SettingBlades {
  readonly go: HeldBlades | null;
  readonly noGo: HeldBlades | null;
}

/**
 * Names the blade, or stack, to set an adjuster with, and the one that must then not go.
 *
 * Rule: the thickest that still lies at or under the target goes, the thinnest over it does not; both lie in the band, so that
 * what the two show is in the band for certain.
 *
 * @param input blades, target and limits in mm; `maxStack` blades may be held together
 * @example settingBlades({ blades: [0.1, 0.15, 0.2], maxStack: 1, target: 0.15, spec: { min: 0.1, max: 0.2 } }).noGo?.thickness // 0.2
 */
export function settingBlades(input: {
  readonly blades: readonly number[];
  readonly maxStack: number;
  readonly target: number;
  readonly spec: { readonly min: number; readonly max: number };
}): SettingBlades {
  const [target, min, max] = [input.target, input.spec.min, input.spec.max].map(tenthsFromMm) as [
    number,
    number,
    number,
  ];
  const inside = stacksOf(input.blades.map(tenthsFromMm), input.maxStack).filter(
    ({ thickness }) => thickness >= min && thickness <= max,
  );
  const best = (stacks: readonly Stack[]): HeldBlades | null => {
    const [stack] = stacks.toSorted(
      (a, b) => Math.abs(a.thickness - target) - Math.abs(b.thickness - target) || handierStack(a, b),
    );
    return stack
      ? { blades: stack.blades.map(mmFromTenths), thickness: mmFromTenths(stack.thickness) }
      : null;
  };
  return {
    go: best(inside.filter(({ thickness }) => thickness <= target)),
    noGo: best(inside.filter(({ thickness }) => thickness > target)),
  };
}
