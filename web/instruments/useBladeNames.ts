import { stampOf, type Blade } from '@zero-lash/core/measuring';
import type { ShopUnit } from '@zero-lash/core/length';
import { useMemo } from 'react';
import { useLengths } from '../app/lengths.ts';

/** How blades are called. */
export interface BladeNames {
  /** a length in the unit the blades are stamped in */
  readonly figure: (mm: number) => string;
  /** a blade by what is stamped on it: `6.0` */
  readonly stamp: (mm: number) => string;
  /** the same, and what it measures where that is something else: `6.0 (measures 5.8)` */
  readonly called: (mm: number) => string;
}

/** Writes blades, each given by how thick it is in mm, as they are called: by what is stamped on them. */
export function useBladeNames(fan: readonly Blade[], unit: ShopUnit | undefined): BladeNames {
  const { figure } = useLengths(unit);
  return useMemo(() => {
    const stamp = (mm: number) => figure(stampOf(fan, mm));
    const called = (mm: number) =>
      stamp(mm) === figure(mm) ? stamp(mm) : `${stamp(mm)} (measures ${figure(mm)})`;
    return { figure, stamp, called };
  }, [fan, figure]);
}
