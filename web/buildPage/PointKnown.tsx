import type { KnownGap } from '@zero-lash/core/measuring';
import { memo } from 'react';
import { useLengths } from '../app/lengths.ts';
import { GapBar } from '../drawings/GapBar.tsx';
import type { PointState } from '../drawings/states.ts';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import { useTapPreview } from '../measuring/tapPreview.ts';

interface Props {
  /** where what is tapped at the point is kept */
  readonly place: string;
  /** what the point is called */
  readonly name: string;
  /** null where its sheet has no limits yet */
  readonly min: number | null;
  readonly max: number | null;
  readonly known: KnownGap | null;
  readonly state: PointState;
  readonly target: number | undefined;
}

/** What is known of a point's gap, drawn and in figures; what a tap just said of it is drawn before anything else is. */
export const PointKnown = memo(function PointKnown({ place, name, min, max, known, state, target }: Props) {
  const { figure, interval, unit } = useLengths();
  const said = useTapPreview(place);
  const gap = said ?? known;
  const stands = said?.state ?? state;
  return (
    <>
      <GapBar min={min} max={max} gap={gap} state={stands} target={target} width={300} figure={figure} />
      <div className="point-figures" aria-live="polite" aria-atomic="true">
        <span className="spoken">{name}</span>
        <b>{gap ? interval(gap) : '–'}</b>
        <span className="point-about">{unit}</span>
        <VerdictMark state={stands} withWord size={18} />
      </div>
    </>
  );
});
