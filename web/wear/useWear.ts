import type { LimitLine, WearLine, WearSheet } from '@zero-lash/core/wear';
import { wearSheetOf } from '@zero-lash/core/wear';
import { useMemo } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { useWorkedUp } from '../app/useWorkedUp.ts';
import { useRole } from '../app/useRole.ts';

/** The wear sheet of a build as it is worked on here. */
export interface WearWork {
  readonly buildId: string;
  readonly sheet: WearSheet;
  /** figures may be written here now */
  readonly enabled: boolean;
  /** entries that are not sent yet */
  readonly unsent: ReadonlySet<string>;
  readonly write: (about: string, lines: readonly WearLine[]) => void;
  /** does something once what was just typed is painted */
  readonly follow: (work: () => void) => void;
}

/** A wear sheet put together from what was written; lines of the same build that are on their way are in it. */
export function useWear(build: BuildView): WearWork {
  const put = useBenchWrite(build.id);
  const follow = useWorkedUp();
  const { mayWork } = useRole();
  const { wear } = build;
  const { wearLimits } = build.sheet;
  const sheet = useMemo(() => wearSheetOf(wear, wearLimits), [wear, wearLimits]);
  const outbox = useAppSelector((state) => state.outbox.items);
  const unsent = useMemo(
    () =>
      new Set(
        outbox.filter(({ kind, refused }) => kind === 'wear' && refused === null).map(({ key }) => key),
      ),
    [outbox],
  );
  const write = useStable((about: string, lines: readonly WearLine[]) =>
    put({ kind: 'wear', about, body: { lines: structuredClone(lines) as never } }),
  );
  const enabled = mayWork && !build.closedAt && build.signOff === null;
  const buildId = build.id;
  return useMemo(
    () => ({ buildId, sheet, enabled, unsent, write, follow }),
    [buildId, sheet, enabled, unsent, write, follow],
  );
}

/** A limit without anything in it, for one that the sheet lacks. */
export const NO_LIMIT: Omit<LimitLine, 'part' | 'unit'> = {
  ...{ kind: 'limit', of: 'both', place: '', source: '' },
  ...{ nominal: null, limit: null, min: null, max: null },
};
