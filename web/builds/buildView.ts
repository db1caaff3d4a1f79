import type { BuildHead, BuildParts } from '@zero-lash/contract/builds';
import type { SheetRevision } from '@zero-lash/contract/sheets';

/** A build as the bench sees it, put together from its rooms and its sheet. */
export interface BuildView extends BuildHead, BuildParts {
  readonly sheet: SheetRevision;
}
