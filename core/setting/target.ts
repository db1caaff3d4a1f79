import type { Limits } from '../measuring/index.ts';
import type { Role } from '../sheets/index.ts';
import { tenthsFromMm, type Tenths } from '../length/index.ts';

/** A school of where in the band to aim; the first is the default, the last goes by figures of the shop's own. */
export type Aim = 'middle' | 'exhaust-loose' | 'loose-end' | 'tight-end' | 'own';

/** A figure of the shop's own to aim at, in one role; mm. */
export interface OwnAim {
  readonly role: Role;
  readonly target: number;
}

/**
 * Says which clearance to aim for. The loose and tight ends stand a quarter of the band inside their limit, so that
 * the next hand still finds the point in spec. A role that own figures say nothing of is aimed at its middle; the middle of a band that
 * the shop laid round the maker's one figure is that figure.
 *
 * @param own figures of the shop's own, by which the last school goes
 * @returns tenths of a micrometre, whole
 * @example aimFor('middle', 'intake', { min: 1100, max: 1900 }) // 1500
 */
export function aimFor(
  aim: Aim,
  role: Role,
  { min, max, figure }: Limits,
  own: readonly OwnAim[] = [],
): Tenths {
  const said = aim === 'own' ? own.find((each) => each.role === role) : undefined;
  if (said) return tenthsFromMm(said.target);
  const share = {
    middle: 0.5,
    'exhaust-loose': role.startsWith('exhaust') ? 0.75 : 0.5,
    'loose-end': 0.75,
    'tight-end': 0.25,
    own: 0.5,
  }[aim];
  if (share === 0.5 && figure !== undefined) return figure;
  return Math.round(min + (max - min) * share);
}
