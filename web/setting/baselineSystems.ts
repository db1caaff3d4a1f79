import { mmFromTenths } from '@zero-lash/core/length';
import { mayBeBare } from '@zero-lash/core/builds';
import { pieceSystem, sizesOf } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import { limitedPoints, type LimitedPoint } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';

/** The points that are set by pieces of one system, with the sizes those are made in; mm. */
export interface BaselineSystem {
  readonly key: string;
  readonly title: string;
  readonly points: readonly LimitedPoint[];
  readonly sizes: readonly number[];
  /** a gap may be measured with nothing in: a shim under a bucket, where the sheet says that the maker allows it */
  readonly mayBeBare: boolean;
}

/** Every system of pieces of a sheet whose sizes are known; closing sides are set by hand, after their opening sides. */
export function baselineSystems(sheet: BuildView['sheet']): readonly BaselineSystem[] {
  const systems = new Map<string, BaselineSystem>();
  for (const point of limitedPoints(sheet)) {
    const means = meansFor(sheet.pattern, point.role);
    const system = pieceSystem(means);
    if (!system || !('sizes' in means) || means.sizes === null || point.role.endsWith('closing')) continue;
    const before = systems.get(system.key);
    systems.set(system.key, {
      ...{ key: system.key, title: system.title, mayBeBare: mayBeBare(sheet.pattern, point.role) },
      points: [...(before?.points ?? []), point],
      sizes: before?.sizes ?? sizesOf(means.sizes).map(mmFromTenths),
    });
  }
  return [...systems.values()];
}
