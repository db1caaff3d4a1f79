import type { StageKey } from '@zero-lash/core/builds';
import { memo } from 'react';
import { usePrinting } from '../app/usePrinting.ts';
import type { BuildView } from '../builds/buildView.ts';
import { ProofTable } from '../signoff/ProofTable.tsx';
import { STAGE_ROOMS } from './stageRooms.ts';

/** On paper every point stands with its figures, and not only the one that is at hand; where the stage has them already, once. */
export const PointsOnPaper = memo(function PointsOnPaper({
  build,
  looking,
}: {
  readonly build: BuildView;
  readonly looking: StageKey;
}) {
  const printing = usePrinting();
  if (!printing || build.rounds.length === 0 || STAGE_ROOMS[looking].Under === ProofTable) return null;
  return <ProofTable build={build} />;
});
