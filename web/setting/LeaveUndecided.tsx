import { findingsNow, isUndecided, pointsSet } from '@zero-lash/core/builds';
import { WithReason } from '../app/WithReason.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';

/** Points that no blade decides and nobody touched, left as they are by one reason for all of them. */
export function LeaveUndecided({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const set = pointsSet(build);
  const keys = [...findingsNow(build).values()]
    .filter(({ point, verdict }) => isUndecided(verdict) && verdict !== 'conflict' && !set.has(point))
    .map(({ point }) => point);
  if (!mayWork || build.closedAt || keys.length < 2) return null;
  return (
    <WithReason
      draft={`undecided:${build.id}`}
      ask={`Leave the ${keys.length} undecided as they are…`}
      label="Left alone because"
      action="Leave them all"
      missing="Say why they stay as they are."
      follows={`One reason for ${keys.join(', ')}. A lead accepts each at proving, or it is set after all.`}
      most={200}
      onDo={(note) => {
        for (const point of keys) put({ kind: 'setting', body: { point, kind: 'left', note } });
        return true;
      }}
    />
  );
}
