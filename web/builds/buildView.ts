import type { BuildHead, NoteRow, TickRow } from '@zero-lash/contract/builds';
import type { Round } from '@zero-lash/contract/measuring';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import type { Setting } from '@zero-lash/contract/setting';
import type { SheetRevision } from '@zero-lash/contract/sheets';

/** A build as the bench sees it, put together from its rooms and its sheet. */
export interface BuildView extends BuildHead {
  readonly sheet: SheetRevision;
  readonly rounds: readonly Round[];
  readonly settings: readonly Setting[];
  /** what is ticked */
  readonly ticks: readonly TickRow[];
  readonly notes: readonly NoteRow[];
  readonly rechecks: readonly PastRecheck[];
}
