import { findings, currentLines } from '@zero-lash/core/builds';
import { pointBudget, type HeadWorkLine, type PointBudget } from '@zero-lash/core/headwork';
import { mmFromTenths } from '@zero-lash/core/length';
import {
  boundedGap,
  limitedPoints,
  whyUnknown,
  type LimitedPoint,
  type Unknown,
} from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import { characteristicOf, figuresAt, limitAt, wearSheetOf } from '@zero-lash/core/wear';
import { useMemo } from 'react';
import { useUnit } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';

/** A lash point with what its head work will leave. */
export interface BudgetOfPoint {
  readonly point: LimitedPoint;
  readonly found: { readonly lo: number; readonly hi: number } | null;
  /** why nothing is worked out from how it was found; null where something is */
  readonly unknown: Unknown | 'not-measured' | null;
  readonly target: number;
  readonly installed: number | null;
  /** a graded piece is reckoned with, and nobody has said which is in */
  readonly needsPiece: boolean;
  /** it is set by a screw, and nobody has said how far that stands out */
  readonly needsStandout: boolean;
  readonly budget: PointBudget | null;
}

const PIECE = characteristicOf('piece-in')!;
const STANDOUT = characteristicOf('screw-standout')!;

/** The head work of a build as it stands, and what it leaves at every point. */
export function useBudgets(build: BuildView): {
  readonly lines: readonly HeadWorkLine[];
  readonly budgets: readonly BudgetOfPoint[];
} {
  const { sheet, headwork, wear, rounds, aim, ownAims } = build;
  const unit = useUnit();
  const lines = useMemo(
    () =>
      [...currentLines<HeadWorkLine>(headwork, ({ step, valve }) => `${step} ${valve}`).values()]
        .map(({ line }) => line)
        .filter(({ dropped }) => !dropped),
    [headwork],
  );
  const budgets = useMemo(() => {
    const { pattern } = sheet;
    const worn = wearSheetOf(wear, sheet.wearLimits);
    const found = findings(rounds.filter(({ kind }) => kind === 'as-found'));
    return limitedPoints(sheet).map((point): BudgetOfPoint => {
      const reading = found.get(point.key);
      const gap = reading ? boundedGap(reading) : null;
      // the gap was found with what was in then: a piece that was put in since moves it, and is set by at Set
      const figure = (item: typeof PIECE) => figuresAt(worn, item, point.key, 'found')['value']?.[0] ?? null;
      const installed = figure(PIECE);
      const role = point.role.startsWith('intake') ? ('intake' as const) : ('exhaust' as const);
      const place = { key: point.key, cylinder: point.cylinder, role };
      const standsOut = limitAt(worn.limits, 'screw-standout', place);
      const target = mmFromTenths(aimFor(aim, point.role, point.toSet, ownAims?.figures));
      return {
        ...{ point, found: gap, target, installed },
        unknown: reading ? whyUnknown(reading) : 'not-measured',
        needsStandout: meansFor(pattern, point.role).kind === 'screw' && figure(STANDOUT) === null,
        needsPiece: 'sizes' in meansFor(pattern, point.role) && installed === null,
        budget: pointBudget({
          unit,
          ...{ pattern, point, found: gap, lines, target, installed },
          limits: point.limits,
          standout: figure(STANDOUT),
          standoutLimits:
            standsOut && standsOut.min !== null && standsOut.max !== null
              ? { min: standsOut.min, max: standsOut.max }
              : null,
          tipLimit: limitAt(worn.limits, 'tip-grinding', place)?.limit ?? null,
        }),
      };
    });
  }, [sheet, wear, rounds, aim, ownAims, lines, unit]);
  return { lines, budgets };
}
