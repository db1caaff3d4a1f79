import { useMemo } from 'react';
import { formatInterval, formatLength, lengthWithUnit, tenthsFromMm } from '@zero-lash/core/length';
import { systemOf, type MeasureSystem, type ShopUnit, type ShownIn } from '@zero-lash/core/length';
import { gapInTenths, type KnownGap } from '@zero-lash/core/measuring';
import { useSession } from './useSession.ts';
import { useAppSelector } from './store.ts';

/** The unit this device reads in: the one chosen here, or the shop's. */
export function useUnit(): ShopUnit {
  const chosen = useAppSelector((state) => state.preferences.unit);
  const session = useSession();
  return chosen ?? session?.shop.unit ?? 'mm';
}

/** What figures of a build are shown in here: its sheet's own system, else that of the unit this device reads in. The same object each time. */
export function useShownIn(own: MeasureSystem | null | undefined): ShownIn {
  const length = useUnit();
  const system = systemOf(length, own);
  return useMemo(() => ({ length, system }), [length, system]);
}

/**
 * Writes lengths given in mm in the unit this device reads in; or in another, such as the one a blade is stamped in, which
 * stays what it is whatever the page reads in.
 */
export function useLengths(stamped?: ShopUnit) {
  const read = useUnit();
  const unit = stamped ?? read;
  return useMemo(() => lengthsIn(unit), [unit]);
}

function lengthsIn(unit: ShopUnit) {
  return {
    unit,
    figure: (mm: number) => formatLength(tenthsFromMm(mm), unit),
    length: (mm: number) => lengthWithUnit(tenthsFromMm(mm), unit),
    interval: (gap: KnownGap) => formatInterval(gapInTenths(gap), unit),
    band: (min: number, max: number) =>
      `${formatLength(tenthsFromMm(min), unit)}–${lengthWithUnit(tenthsFromMm(max), unit)}`,
  };
}
