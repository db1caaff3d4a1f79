import type { BuildView } from '../builds/buildView.ts';
import { notMeasured, readingAt, roundOfStage, setsAsFound } from '@zero-lash/core/builds';
import { piecePoints } from '@zero-lash/core/setting';
import { useMemo } from 'react';
import { Note } from '../app/Note.tsx';

/** What a lap left out and not set: its pieces are planned together once every point was felt. */
export function CollectedPieces({ build }: { readonly build: BuildView }) {
  const { toFeel, out } = useMemo(() => {
    const round = roundOfStage(build, build.stage);
    const points = piecePoints(build);
    // what cannot be reached, or came apart, is not waited for
    const aside = notMeasured(build);
    return {
      toFeel: points.filter(({ point: { key } }) => !aside.has(key) && !readingAt(round, key)).length,
      out: points.filter((each) => each.out && (each.why === null || each.why === 'need-piece')),
    };
  }, [build]);
  if (!setsAsFound(build.job, build.stage) || out.length === 0) return null;
  return (
    <Note>
      To be fitted: {out.map(({ point }) => point.key).join(', ')}.{' '}
      {toFeel > 0
        ? 'What is not fitted where the crank stands is planned together when every point was felt.'
        : 'Every point was felt: the plan below is for all of them at once, and only their stops are turned to.'}
    </Note>
  );
}
