import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';

/** A stored length in mm; null where nothing is known above. */
export const mmOrNull = (tenths: number | null): number | null =>
  tenths === null ? null : mmFromTenths(tenths);

/** A length in mm as it is stored; null where there is none. */
export const tenthsOrNull = (mm: number | null): number | null => (mm === null ? null : tenthsFromMm(mm));
