import { lastChange } from '@zero-lash/core/builds';
import { bareBand, seatOffsetAt } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import type { LimitedPoint } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';

const ANY_SHIM = { min: 0.05, max: 10 };

/** Where a gap is likely to lie at a point, in mm: about its limits; with nothing in, as wide as a shim and more. */
export function expectedAt(
  build: Pick<BuildView, 'settings' | 'wear' | 'sheet'>,
  point: LimitedPoint,
): { readonly min: number; readonly max: number } {
  const limits = { min: point.min, max: point.max };
  const means = meansFor(build.sheet.pattern, point.role);
  if (means.kind !== 'shim' || lastChange(build.settings, point.key)?.kind !== 'bare') return limits;
  // of a shim nobody knows the sizes of, anything a shim is may be the gap
  if (means.sizes === null) return ANY_SHIM;
  return bareBand({ sizes: means.sizes, offset: seatOffsetAt(build, point)?.mm ?? 0, limits });
}
