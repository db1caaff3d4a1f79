import { lastChange } from '@zero-lash/core/builds';
import { bareBand, seatOffsetAt } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import { hasLimits, type MeasuredPoint } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';

const ANY_SHIM = { min: 0.05, max: 10 };

/** Where any gap lies that is not a slip, in mm; a brake rocker's is wide. */
const ANY_GAP = { min: 0.03, max: 0.8 };
const ANY_BRAKE_GAP = { min: 0.2, max: 4 };

/** Where a gap is likely to lie at a point, in mm: about its limits; before they are known, where any gap lies. */
export function likelyAt(point: MeasuredPoint): { readonly min: number; readonly max: number } {
  if (hasLimits(point)) return { min: point.min, max: point.max };
  return point.role === 'brake' ? ANY_BRAKE_GAP : ANY_GAP;
}

/** The same, in a build: with nothing in, as wide as a shim and more. */
export function expectedAt(
  build: Pick<BuildView, 'settings' | 'wear' | 'sheet'>,
  point: MeasuredPoint,
): { readonly min: number; readonly max: number } {
  const limits = likelyAt(point);
  const means = meansFor(build.sheet.pattern, point.role);
  if (means.kind !== 'shim' || lastChange(build.settings, point.key)?.kind !== 'bare') return limits;
  // of a shim nobody knows the sizes of, anything a shim is may be the gap
  if (means.sizes === null) return ANY_SHIM;
  return bareBand({ sizes: means.sizes, offset: seatOffsetAt(build, point)?.mm ?? 0, limits });
}
