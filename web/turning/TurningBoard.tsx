import { Box } from '@chakra-ui/react';
import type { Pattern } from '@zero-lash/core/sheets';
import { lazy, Suspense, type ReactNode } from 'react';
import { CrankWheel, type WheelStop } from '../drawings/CrankWheel.tsx';
import type { PointState } from '../drawings/states.ts';
import { ValveGear } from '../drawings/ValveGear.tsx';

const LiftChart = lazy(() => import('./LiftChart.tsx'));

interface Props {
  readonly pattern: Pattern;
  readonly angle: number;
  readonly onTurn: (angle: number) => void;
  readonly stops: readonly WheelStop[];
  readonly states?: Readonly<Record<string, PointState>>;
  readonly selected?: string | null;
  readonly onSelect?: (key: string) => void;
  readonly label: string;
  /** what stands above the valve gear */
  readonly children?: ReactNode;
}

/** The crank wheel, and beside it the valve gear at the same angle; below both the lift over the whole cycle. */
export function TurningBoard(props: Props) {
  const { pattern, angle, onTurn, stops, states, selected = null, onSelect, label, children } = props;
  return (
    <Box
      display="grid"
      gap="5"
      gridTemplateColumns={{
        base: 'minmax(0, 1fr)',
        md: 'minmax(0, 1fr) minmax(0, 1fr)',
        lg: 'minmax(0, 440px) minmax(0, 1fr)',
      }}
    >
      <CrankWheel
        pattern={pattern}
        angle={angle}
        onTurn={onTurn}
        stops={stops}
        {...(states ? { states } : {})}
        selected={selected}
        label={label}
      />
      <Box minWidth="0" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="3" alignContent="start">
        {children}
        <ValveGear pattern={pattern} angle={angle} selected={selected} onSelect={onSelect} />
        <Suspense fallback={<Box height="170px" />}>
          <LiftChart pattern={pattern} angle={angle} selected={selected} />
        </Suspense>
        <Box color="faded" fontSize="sm">
          Turn the wheel by dragging it, or when it is chosen with ← → (shift: 10°), PageUp and PageDown from
          stop to stop. Ink: intake; brass: exhaust; thin: brake rocker; the first turn lies inside the
          second.
        </Box>
      </Box>
    </Box>
  );
}
