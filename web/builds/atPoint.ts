import type { LimitedPoint } from '@zero-lash/core/measuring';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { BuildView } from './buildView.ts';

/** What a stage's room is told of the selected point. */
export interface AtPointProps {
  readonly build: BuildView;
  readonly point: LimitedPoint;
  /** what the point is set by; nothing where it was changed since, or where the reading proves nothing */
  readonly reading: ReadingRow | undefined;
  /** it was measured before it was last changed, and not since */
  readonly stale: boolean;
  /** mm, what the build aims at there */
  readonly target: number;
  readonly onNext: () => void;
}
