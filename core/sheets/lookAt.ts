import { meansFor } from './lashPoints.ts';
import type { Pattern, Role } from './pattern.ts';
import { gearParts } from './trainPlaces.ts';

/**
 * Lists what is looked at where a gap is far out or moved fast, before it is set.
 *
 * Rule: a tight valve has lost its seat or stretched, which leak-down shows; a loose one has lost something of its train.
 *
 * @example lookedAtFor(pattern, 'intake', 'tight') // ['leak-down of its cylinder']
 */
export function lookedAtFor(pattern: Pattern, role: Role, verdict: 'tight' | 'loose'): readonly string[] {
  if (verdict === 'tight') return ['leak-down of its cylinder'];
  const { rockers, pushrods } = gearParts(pattern);
  const { kind } = meansFor(pattern, role);
  return [
    'lobe lift',
    ...(pushrods ? ['pushrod'] : []),
    ...(kind === 'lash-cap' ? ['tip cap'] : []),
    ...(rockers ? ['rocker'] : []),
    ...(kind === 'screw' || kind === 'pivot-nut' ? ['adjuster nut'] : []),
    ...(kind === 'shim' ? ['shim and its seat'] : []),
  ];
}
