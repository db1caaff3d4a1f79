import type { BuildView } from '../builds/buildView.ts';
import {
  isDecided,
  TRY_WORDS,
  type GoNoGo,
  type MeasuredPoint,
  type Try,
  type Verdict,
} from '@zero-lash/core/measuring';
import { meansFor } from '@zero-lash/core/sheets';
import type { ShopUnit } from '@zero-lash/core/length';
import { useBladeNames } from '../instruments/useBladeNames.ts';
import { STATE_WORDS } from '../drawings/states.ts';
import { memo } from 'react';
import { useBench } from '../instruments/useBench.ts';
import type { TurningWork } from '../turning/useTurning.ts';
import type { RoundHere } from './pending.ts';
import { SIDES, type OnBoth, type OnTap } from './TryPads.tsx';
import { triesOffer } from './triesOffer.ts';
import { useMeasure } from './useMeasure.ts';
import { useTries } from './useTries.ts';

/** A point that is felt where the crank stands, and the round that a reading of it goes into. */
export interface FeltHere {
  readonly point: MeasuredPoint;
  readonly round: RoundHere;
  /** it was not felt yet, or not since it was changed */
  readonly toFeel: boolean;
}

interface Props {
  readonly build: BuildView;
  readonly pair: GoNoGo;
  /** the valves of one cylinder that are felt by the same two blades, in their order on the head */
  readonly points: readonly FeltHere[];
  /** the one that is selected */
  readonly selected: string;
  readonly turning: TurningWork;
  readonly blind: boolean;
  readonly unit: ShopUnit;
  /** a tap at the selected point */
  readonly onTap: OnTap;
  readonly onBoth: OnBoth;
  readonly onVerdict: (point: string, verdict: Verdict) => void;
}

/**
 * Two valves of a cylinder side by side, each blade over both: which column a valve has does not change as one of them is answered,
 * so no pad moves under a finger.
 */
export function PadsBeside({ pair, points, unit, ...rest }: Props) {
  const { fan } = useBench();
  const { stamp } = useBladeNames(fan, unit);
  const called = (which: 'go' | 'noGo') => pair[which].blades.map(stamp).join(' + ');
  return (
    <div className="measure">
      {ROWS.map((which) => (
        <div key={which}>
          <div className="pads-over">
            {which === 'both' ? (
              `Both felt: ${called('go')} goes, ${called('noGo')} won’t`
            ) : (
              <>
                {which === 'go' ? 'Go' : 'No-go'}{' '}
                <b>
                  {called(which)} {unit}
                </b>
              </>
            )}
          </div>
          <div className="pads-beside">
            {points.map((each) => (
              <Column key={each.point.key} felt={each} which={which} pair={pair} unit={unit} {...rest} />
            ))}
          </div>
        </div>
      ))}
    </div>
  );
}

/** Each blade, and both of them where they were felt already. */
const ROWS = ['go', 'noGo', 'both'] as const;

interface ColumnProps extends Omit<Props, 'points'> {
  readonly felt: FeltHere;
  readonly which: (typeof ROWS)[number];
}

/** What one blade does at one valve, or both. */
const Column = memo(function Column({
  build,
  felt: { point, round, toFeel },
  which,
  pair,
  selected,
  turning,
  blind,
  unit,
  onTap,
  onBoth,
  onVerdict,
}: ColumnProps) {
  const bench = useBench();
  const { stamp: figure } = useBladeNames(bench.fan, unit);
  const byFigure = 'sizes' in meansFor(build.sheet.pattern, point.role);
  const work = useTries(round.id, point, bench, {
    narrows: byFigure && round.kind !== 'proved',
    hollow: false,
  });
  const measure = useMeasure(build, round, point.key, turning, { blind, narrowBlade: false });
  const here = point.key === selected;
  const reading = round.readings.find((row) => row.point === point.key && row.roundId === round.id);
  // what is read is read again only where it is selected: no pad beside it writes over it
  const done = !here && (!toFeel || !measure.takesAtOnce());

  function put(made: readonly Try[]): void {
    const tries = [...work.tries, ...made];
    const { verdict, narrowing } = work.comeTo(tries);
    work.put(tries);
    onVerdict(point.key, verdict);
    if (!isDecided(verdict)) return;
    measure.keep(triesOffer(tries, bench, figure, unit), () => {
      // what is out and is set by its figure is narrowed when it is its turn
      if (verdict === 'in-spec' || !narrowing) work.put([]);
    });
  }

  if (which === 'both') {
    const both: readonly Try[] = [
      { thickness: pair.go.thickness, result: 'goes' },
      { thickness: pair.noGo.thickness, result: 'wont' },
    ];
    return (
      <button
        type="button"
        className="pad"
        aria-label={`Both felt at ${point.key}`}
        // it keeps its place when one of them is said
        style={done || work.tries.length > 0 ? { visibility: 'hidden' } : undefined}
        onClick={(event) => (here ? onBoth(both, 'both', event.timeStamp) : put(both))}
      >
        {point.key}
      </button>
    );
  }
  const { thickness } = pair[which];
  const answered = work.tries.find((one) => one.thickness === thickness)?.result;
  const name = `${which === 'go' ? 'Go' : 'No-go'} blade${here ? '' : `, ${point.key}`}`;
  return (
    <div role="group" aria-label={name} className="pads-column" data-here={here || undefined}>
      <div className="pads-whose">
        {point.key}
        {done && reading && <small> {STATE_WORDS[reading.verdict]}</small>}
      </div>
      <div className="pads" style={done ? { visibility: 'hidden' } : undefined}>
        {SIDES.map((result) => (
          <button
            key={result}
            type="button"
            className={(which === 'go') === (result === 'goes') ? 'pad pad-good' : 'pad'}
            aria-pressed={answered === result}
            onClick={(event) =>
              here
                ? onTap({ thickness, result }, `${which} ${result}`, event.timeStamp)
                : put([{ thickness, result }])
            }
          >
            {TRY_WORDS[result]}
          </button>
        ))}
      </div>
    </div>
  );
});
