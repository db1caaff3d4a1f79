import { lashPoints, type Pattern } from '@zero-lash/core/sheets';
import { inCycle, type PlannedStop } from '@zero-lash/core/turning';
import { useMemo } from 'react';
import { useShared } from '../app/useShared.ts';
import './turning.css';
import { CrankWheel, type WheelStop } from '../drawings/CrankWheel.tsx';
import { TurnRuler } from '../drawings/TurnRuler.tsx';
import type { PointState } from '../drawings/states.ts';

/** A stop of the plan with the points that are measured there, and the cylinders it is told by. */
export interface BoardStop extends WheelStop, Pick<PlannedStop, 'points' | 'fires' | 'rocks'> {}

interface Props {
  readonly pattern: Pattern;
  readonly angle: number;
  readonly onTurn: (angle: number) => void;
  readonly stops: readonly BoardStop[];
  readonly states?: Readonly<Record<string, PointState>>;
  readonly selected?: string | null;
  readonly onSelect?: (key: string) => void;
  /** the ruler stands under the wheel, where there is no room beside it */
  readonly stacked?: boolean;
  /** whose crank it is */
  readonly of: string;
}

/** The crank wheel with what matters at the stop that is next, and beside it both turns laid out straight. */
export function TurningBoard(props: Props) {
  const { pattern, angle, onTurn, states, selected = null, onSelect, stacked = false, of } = props;
  // within a stop they stay what they are, so that a reading draws its own lane and nothing else
  const stops = useShared(props.stops);
  const next = stopAhead(stops, angle);
  const matters = useMemo(() => next && pointsToldBy(pattern, next), [pattern, next]);
  return (
    <div className={stacked ? 'turning-board' : 'turning-board turning-board-wide'}>
      <CrankWheel
        pattern={pattern}
        angle={angle}
        onTurn={onTurn}
        stops={stops}
        matters={matters}
        {...(states ? { states } : {})}
        selected={selected}
        label={`Crank wheel of ${of}`}
      />
      <TurnRuler
        pattern={pattern}
        angle={angle}
        onTurn={onTurn}
        stops={stops}
        {...(states ? { states } : {})}
        selected={selected}
        onSelect={onSelect}
        label={`Two turns of ${of}`}
      />
    </div>
  );
}

/** The points of a stop whose cylinder fires or rocks there: by those the stop is told. */
function pointsToldBy(pattern: Pattern, { points, fires, rocks }: BoardStop): readonly string[] {
  const told = new Set([...fires, ...rocks]);
  const own = new Map(lashPoints(pattern).map(({ key, cylinder }) => [key, cylinder]));
  return points.filter((key) => told.has(own.get(key)!));
}

/** The stop that the crank stands at, or comes to next as it is turned on; of those with something left, where there are any. */
function stopAhead(stops: readonly BoardStop[], angle: number): BoardStop | undefined {
  const left = stops.filter(({ place }) => place !== 'done');
  const ahead = (left.length > 0 ? left : stops).toSorted(
    (a, b) => inCycle(a.angle - angle) - inCycle(b.angle - angle),
  );
  return ahead[0];
}
