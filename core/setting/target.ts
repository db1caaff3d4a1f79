import type { Limits } from '../measuring/index.ts';
import type { Role } from '../sheets/index.ts';
import type { Tenths } from '../length/index.ts';

/** A school of where in the band to aim; the first is the default. */
export type Aim = 'middle' | 'exhaust-loose' | 'loose-end' | 'tight-end';

/**
 * Says which clearance to aim for. The loose and tight ends stand a quarter of the band inside their limit, so that
 * the next hand still finds the point in spec.
 *
 * @returns tenths of a micrometre, whole
 * @example aimFor('middle', 'intake', { min: 1100, max: 1900 }) // 1500
 */
export function aimFor(aim: Aim, role: Role, { min, max }: Limits): Tenths {
  const share = {
    middle: 0.5,
    'exhaust-loose': role.startsWith('exhaust') ? 0.75 : 0.5,
    'loose-end': 0.75,
    'tight-end': 0.25,
  }[aim];
  return Math.round(min + (max - min) * share);
}
