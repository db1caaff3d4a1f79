import { Box } from '@chakra-ui/react';
import type { Pattern } from '@zero-lash/core/sheets';
import { onDemand } from '../app/onDemand.tsx';
import { ValveGear } from '../drawings/ValveGear.tsx';

const LiftChart = onDemand(async () => (await import('./LiftChart.tsx')).default, <Box height="170px" />);

interface Props {
  readonly pattern: Pattern;
  readonly angle: number;
  readonly selected?: string | null;
  readonly onSelect?: (key: string) => void;
}

/** The valve gear at an angle, and below it the lift over the whole cycle. */
export function GearAndLift({ pattern, angle, selected = null, onSelect }: Props) {
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="3">
      <ValveGear pattern={pattern} angle={angle} selected={selected} onSelect={onSelect} />
      <LiftChart pattern={pattern} angle={angle} selected={selected} />
      <Box color="faded" fontSize="sm">
        Turn by dragging the wheel or the ruler; on the wheel with ← → as well (shift: 10°), PageUp and
        PageDown from stop to stop. Bars: off its base circle; ink intake, hollow exhaust, thin brake rocker.
        On the wheel: where the points of the next stop may be measured; the first turn lies inside the
        second.
      </Box>
    </Box>
  );
}
