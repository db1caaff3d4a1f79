import type { BuildView } from '../builds/buildView.ts';
import { ShimPlan } from '../shims/ShimPlan.tsx';
import { Slackened } from './Slackened.tsx';

/** Setting an engine: which piece goes where, and what else was slackened for it. */
export function Setting({ build }: { readonly build: BuildView }) {
  return (
    <>
      <ShimPlan build={build} />
      <Slackened build={build} />
    </>
  );
}
