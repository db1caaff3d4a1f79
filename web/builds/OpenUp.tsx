import { SlackenOrder } from '../assembly/SlackenOrder.tsx';
import { CountOut } from '../parts/CountOut.tsx';
import { Seals } from '../parts/Seals.tsx';
import { Photographs } from '../photographs/Photographs.tsx';
import type { BuildView } from './buildView.ts';

/** Opening an engine up: in which order, and every part counted out into its place. */
export function OpenUp({ build }: { readonly build: BuildView }) {
  return (
    <>
      <SlackenOrder build={build} />
      <Seals build={build} />
      <Photographs build={build} stage="open-up" hint="the tray, a gasket" />
      <CountOut build={build} />
    </>
  );
}
