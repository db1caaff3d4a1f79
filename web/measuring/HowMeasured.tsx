import { memo } from 'react';
import { FeelChoice } from './FeelChoice.tsx';
import { HandsFree } from './HandsFree.tsx';
import { useBench } from '../instruments/useBench.ts';

/** How this device measures: its school, its bench, and what it does without a hand. Chosen once, so it stands below the work. */
export const HowMeasured = memo(function HowMeasured() {
  const bench = useBench();
  return (
    <>
      <FeelChoice bench={bench} />
      <HandsFree />
    </>
  );
});
