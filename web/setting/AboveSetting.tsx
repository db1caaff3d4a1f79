import type { BuildView } from '../builds/buildView.ts';
import { AimChoice } from './AimChoice.tsx';
import { OneHead } from './OneHead.tsx';

/** What is chosen before points are set: which head keeps its cover, and what is aimed at. */
export function AboveSetting({ build }: { readonly build: BuildView }) {
  return (
    <>
      <OneHead build={build} />
      <AimChoice build={build} />
    </>
  );
}
