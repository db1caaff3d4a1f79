import type { BuildView } from '../builds/buildView.ts';
import { PutTogether, Tighten } from '../assembly/Tighten.tsx';
import { ShimPlan } from '../pieces/ShimPlan.tsx';
import { Baseline } from './Baseline.tsx';
import { setsAsFound } from '@zero-lash/core/builds';
import { CollectedPieces } from './CollectedPieces.tsx';
import { HeadAgain } from './HeadAgain.tsx';
import { LeaveUndecided } from './LeaveUndecided.tsx';
import { Slackened } from './Slackened.tsx';

/** Setting an engine: what it is measured with first, which piece goes where, and what else was slackened for it. */
export function SetPanel({ build }: { readonly build: BuildView }) {
  return (
    <>
      {!setsAsFound(build.job, build.stage) && <Baseline build={build} />}
      <HeadAgain build={build} />
      <LeaveUndecided build={build} />
      <CollectedPieces build={build} />
      <ShimPlan build={build} />
      <Slackened build={build} />
      <PutTogether build={build} />
      <Tighten build={build} stage="set" />
    </>
  );
}
