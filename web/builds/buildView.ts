import type { BuildHead, BuildParts } from '@zero-lash/contract/builds';
import type { RoleLimits, SheetRevision } from '@zero-lash/contract/sheets';
import type { EffectiveLimits, SetCold } from '@zero-lash/core/setting';

/** A sheet with the limits that one build goes by: its aim may lie outside the band, and the shop may take a little over it. */
export interface EffectiveSheet extends Omit<SheetRevision, 'limits'> {
  readonly limits: EffectiveLimits<RoleLimits>[];
  /** an engine that is measured hot and cannot be run is set cold */
  readonly setCold: SetCold | null;
  /** after so many hours it is cold, where it does not say itself */
  readonly coldHours: number;
}

/** A build as the bench sees it, put together from its rooms and its sheet. */
export interface BuildView extends BuildHead, BuildParts {
  readonly sheet: EffectiveSheet;
}

/** What a build is, whatever is read of it. */
export type BuildAbout = Omit<BuildView, 'rounds'>;
