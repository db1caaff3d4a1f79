import { jobOf, type StageKey } from '@zero-lash/core/builds';
import { SlackenOrder } from '../assembly/SlackenOrder.tsx';
import { Fold } from '../app/Fold.tsx';
import { CountOut } from '../parts/CountOut.tsx';
import { Seals } from '../wear/Seals.tsx';
import { Photographs } from '../photographs/Photographs.tsx';
import type { BuildView } from '../builds/buildView.ts';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
}

/** What comes off before the cover does, or goes back after it: listed once, on the sheet. */
export function Access({ build, going }: { readonly build: BuildView; readonly going: 'off' | 'back' }) {
  const access = build.sheet.pattern.readiness?.access ?? [];
  if (access.length === 0) return null;
  return (
    <div>
      <b>{going === 'off' ? 'Comes off for access' : 'Goes back that came off for access'}</b>:{' '}
      {(going === 'off' ? access : access.toReversed()).join(', ')}.
    </div>
  );
}

/** Opening an engine up: in which order, and every part counted out into its place. */
export function OpenUp({ build, stage }: Props) {
  const { strips } = jobOf(build.job);
  return (
    <>
      <Access build={build} going="off" />
      <SlackenOrder build={build} what="cover" />
      <Seals build={build} />
      <Photographs build={build} stage={stage} hint="the tray, a gasket" />
      {strips ? (
        <CountOut build={build} />
      ) : (
        <Fold title="Count parts out, where more than the cover came off" ruled="above">
          <CountOut build={build} />
        </Fold>
      )}
    </>
  );
}
