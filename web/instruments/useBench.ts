import type { Bench, Instrument } from '@zero-lash/contract/instruments';
import type { ShopUnit } from '@zero-lash/core/length';
import { bladesOf, type Blade } from '@zero-lash/core/measuring';
import { useMemo } from 'react';
import { useAppSelector } from '../app/store.ts';
import { instrumentsApi } from './endpoints.ts';

/** What this device measures with. */
export interface BenchTools {
  readonly benches: readonly Bench[];
  readonly bench: Bench | null;
  readonly bladeSet: Instrument | null;
  /** the unit its blades are stamped in; left out where there is no set, and lengths are as the page reads them */
  readonly bladeUnit: ShopUnit | undefined;
  /** mm, of the blades that may be gone by, as thick as they are */
  readonly blades: readonly number[];
  /** every blade of the set, with what is stamped on it */
  readonly fan: readonly Blade[];
  readonly maxStack: number;
  /** mm, how well a drag is felt again */
  readonly repeatability: number;
  readonly indicator: Instrument | null;
  readonly micrometer: Instrument | null;
  readonly gauges: readonly Instrument[];
}

/** The unit that lengths of an instrument are written in: the one it is marked in, whatever the page reads in. */
export const STAMPED = { mm: 'mm', in: 'thou' } as const satisfies Record<Instrument['unit'], ShopUnit>;
const USUAL_REPEATABILITY = 0.01;
const selectTools = instrumentsApi.endpoints.tools.select();

/**
 * The bench this device stands at, with its blades; the first one where none was chosen. The build's page fetches the
 * tools; this only reads them, because it is read at every tap.
 */
export function useBench(): BenchTools {
  const data = useAppSelector((state) => selectTools(state).data);
  const chosen = useAppSelector((state) => state.preferences.benchId);
  return useMemo(() => {
    const benches = data?.benches ?? [];
    const active = data?.instruments.filter((instrument) => instrument.active) ?? [];
    const bench = benches.find(({ id }) => id === chosen) ?? benches[0] ?? null;
    const sets = active.filter(({ kind }) => kind === 'blade-set');
    const bladeSet = sets.find(({ id }) => id === bench?.bladeSetId) ?? (bench ? null : (sets[0] ?? null));
    const fan = bladeSet ? bladesOf(bladeSet) : [];
    return {
      benches,
      bench,
      bladeSet,
      bladeUnit: bladeSet ? STAMPED[bladeSet.unit] : undefined,
      blades: fan.filter(({ usable }) => usable).map(({ is }) => is),
      fan,
      maxStack: bench?.maxStack ?? 1,
      repeatability: bladeSet?.uncertainty ?? USUAL_REPEATABILITY,
      indicator: active.find(({ kind }) => kind === 'indicator') ?? null,
      micrometer: active.find(({ kind }) => kind === 'micrometer') ?? null,
      gauges: active.filter(({ kind }) => kind === 'digital-gauge'),
    };
  }, [data, chosen]);
}
