import { jobOf } from '@zero-lash/core/builds';
import { SlackenOrder } from '../assembly/SlackenOrder.tsx';
import { Fold } from '../app/Fold.tsx';
import { CountOut } from '../parts/CountOut.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { WearSheetWork } from '../wear/WearSheetWork.tsx';

/** Stripping the train, once every gap is known: in which order, each part into its place, and what it has worn. */
export function Stripped({ build }: { readonly build: BuildView }) {
  // what came in pieces, or was built new, is stripped by nobody here
  const strips = jobOf(build.job).findsAt !== null;
  return (
    <>
      {strips && <SlackenOrder build={build} what="train" />}
      {strips && (
        <Fold title="Count what comes off now" ruled="above">
          <CountOut build={build} />
        </Fold>
      )}
      <WearSheetWork build={build} />
    </>
  );
}
