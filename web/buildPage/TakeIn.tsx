import { asksPressures, type StageKey } from '@zero-lash/core/builds';
import { Fold } from '../app/Fold.tsx';
import { CanThisBench } from '../instruments/CanThisBench.tsx';
import { Wanted } from '../parts/Wanted.tsx';
import { Photographs } from '../photographs/Photographs.tsx';
import { Pressures } from '../wear/Pressures.tsx';
import { Unknowns } from '../sheets/Unknowns.tsx';
import type { BuildView } from '../builds/buildView.ts';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
}

/** Taking an engine in: how it came, whether this bench can do it, what is wanted, and its pressures while it is still whole. */
export function TakeIn({ build, stage }: Props) {
  return (
    <>
      <Unknowns sheet={build.sheet} title="What its sheet does not know" />
      <CanThisBench build={build} />
      {asksPressures(build) ? (
        <Pressures build={build} />
      ) : (
        <Fold title="Compression and leak-down, where there is a complaint" ruled="above">
          <Pressures build={build} />
        </Fold>
      )}
      <Wanted build={build} />
      <Photographs build={build} stage={stage} hint="how it came" />
    </>
  );
}
