import { Box } from '@chakra-ui/react';
import { type LimitedPoint } from '@zero-lash/core/measuring';
import { settingBlades } from '@zero-lash/core/setting';
import type { LockFeel } from '@zero-lash/contract/setting';
import { useLengths } from '../app/lengths.ts';
import { useBladeNames } from '../instruments/useBladeNames.ts';
import { useBench } from '../instruments/useBench.ts';

interface Props {
  readonly point: LimitedPoint;
  /** mm, what the point is to read when it is locked */
  readonly target: number;
  /** mm, by how much this person's gap grows as it is locked */
  readonly shift: number;
}

/** The blade, or stack, to set an adjuster with, and the one that must then not go. */
export function BetweenBlades({ point, target, shift }: Props) {
  const { blades, maxStack, bladeUnit, fan, repeatability } = useBench();
  const { unit } = useLengths(bladeUnit);
  const names = useBladeNames(fan, bladeUnit);
  if (blades.length === 0) return null;
  const { go, noGo } = settingBlades({
    ...{ blades, maxStack, target, repeatability, lockShift: shift },
    ...point.spec,
  });
  const called = (held: readonly number[]) => held.map(names.called).join(' + ');
  if (!go && !noGo) return <Box fontSize="sm">No blade of this bench lies in the band to set it by.</Box>;
  return (
    <Box>
      {shift !== 0 && 'Before locking: '}
      {go ? (
        <>
          set it with <b>{called(go.blades)}</b> {unit}
        </>
      ) : (
        'no blade of the band lies under the target'
      )}
      {noGo && (
        <>
          ; <b>{called(noGo.blades)}</b> {unit} must not go
        </>
      )}
    </Box>
  );
}

/** What locking does to a person's gaps, and whether it is reckoned with yet. */
export function LockSaid({ count, mean, sd, use }: LockFeel) {
  const { length } = useLengths();
  if (mean === null) return null;
  const micro = (mm: number) => length(Math.abs(Math.round(mm * 1000) / 1000));
  const way = mean < 0 ? 'closes' : 'opens';
  return (
    <Box fontSize="sm">
      When you lock it, it {way} by {micro(mean)}
      {sd !== null && ` ± ${micro(sd)}`}, from {count} pair{count === 1 ? '' : 's'}
      {use === 0 ? ': not allowed for until six pairs say so clearly.' : ': that much is allowed for.'}
    </Box>
  );
}
