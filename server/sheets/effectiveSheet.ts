import type { BuildHead } from '@zero-lash/contract/builds';
import type { RoleLimits, SheetRevision } from '@zero-lash/contract/sheets';
import { effectiveLimits, type EffectiveLimits, type OwnAim, type SetCold } from '@zero-lash/core/setting';

/** A sheet with the limits that one build goes by. */
export interface EffectiveSheet extends Omit<SheetRevision, 'limits'> {
  readonly limits: EffectiveLimits<RoleLimits>[];
  /** an engine that is measured hot and cannot be run is set cold */
  readonly setCold: SetCold | null;
  /** after so many hours it is cold, where it does not say itself */
  readonly coldHours: number;
}

/** A sheet as a build goes by it: its aim may lie outside the band, and the shop may take a little over it. */
export function effectiveSheet(
  sheet: SheetRevision,
  {
    aim,
    ownAims,
    allowOver,
    singleRule,
    setCold,
    coldHours,
  }: Pick<BuildHead, 'aim' | 'allowOver' | 'singleRule'> & {
    readonly setCold: SetCold | null;
    readonly coldHours: number;
    readonly ownAims: { readonly figures: readonly OwnAim[] } | null;
  },
): EffectiveSheet {
  const own = ownAims?.figures ?? [];
  const limits = effectiveLimits(sheet.limits, { aim, own, allowOver, singleRule, setCold });
  return { ...sheet, limits: [...limits], setCold, coldHours };
}
