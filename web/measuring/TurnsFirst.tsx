import { NOT_YET, provesFrom } from '@zero-lash/core/builds';
import type { BuildView } from '../builds/buildView.ts';
import { Note } from '../app/Note.tsx';

/** At proving: what is read before the two full turns proves nothing, and the turns come first. */
export function TurnsFirst({ build, point }: { readonly build: BuildView; readonly point: string }) {
  if (provesFrom(build).get(point) !== NOT_YET) return null;
  return (
    <Note padding="2" fontSize="sm">
      Two full turns by hand first, and tick them: what is read before them proves nothing.
    </Note>
  );
}
