import type { BuildHead } from '@zero-lash/contract/builds';
import type { RoleLimits, SheetRevision } from '@zero-lash/contract/sheets';
import { limitsToGoBy, type AllowOver, type OwnAim } from '@zero-lash/core/setting';
import type { Knex } from 'knex';
import { findRevision } from './read.ts';

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

/** The sheet of a build, as the build goes by it. */
export async function readGoneBy(db: Knex, buildId: string): Promise<SheetGoneBy> {
  const build = (await db('builds')
    .where({ id: buildId })
    .first('revision_id as revisionId', 'aim', 'own_aims as ownAims', 'allow_over as allowOver')) as {
    revisionId: string;
    aim: BuildHead['aim'];
    ownAims: { figures: OwnAim[] } | null;
    allowOver: AllowOver[];
  };
  return goneBy(await findRevision(db, build.revisionId), build);
}
