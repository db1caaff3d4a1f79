import type { BuildHead } from '@zero-lash/contract/builds';
import type { RoleLimits, SheetRevision } from '@zero-lash/contract/sheets';
import { limitsToGoBy, type OwnAim } from '@zero-lash/core/setting';

/** A sheet with the limits that one build goes by. */
export interface SheetGoneBy extends Omit<SheetRevision, 'limits'> {
  readonly limits: (RoleLimits & { readonly allowOver: number })[];
}

/** A sheet as a build goes by it: its aim may lie outside the band, and the shop may take a little over it. */
export function goneBy(
  sheet: SheetRevision,
  {
    aim,
    ownAims,
    allowOver,
  }: Pick<BuildHead, 'aim' | 'allowOver'> & {
    readonly ownAims: { readonly figures: readonly OwnAim[] } | null;
  },
): SheetGoneBy {
  const own = ownAims?.figures ?? [];
  return { ...sheet, limits: [...limitsToGoBy(sheet.limits, { aim, own, allowOver })] };
}
