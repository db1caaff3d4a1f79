import { mmFromTenths } from '@zero-lash/core/length';

/** A stored length in mm; null where nothing is known above. */
export const mmOrNull = (tenths: number | null): number | null =>
  tenths === null ? null : mmFromTenths(tenths);
