import { Button } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { Note } from '../app/Note.tsx';
import { useLengths } from '../app/lengths.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

type Taken = NonNullable<ReadingRow['crossed']>;

interface Props {
  readonly buildId: string;
  /** the reading that stands at the point */
  readonly reading: ReadingRow;
  /** whether this person may take one of the two */
  readonly enabled: boolean;
}

/** Two people wrote one point without seeing each other: both are told, both stay on the record, and a person takes one. */
export function Crossed({ buildId, reading, enabled }: Props) {
  const put = useBenchWrite(buildId);
  const { interval, unit } = useLengths();
  const { crossed } = reading;
  if (!crossed) return null;
  const take = (one: Taken) =>
    put({
      kind: 'reading',
      roundId: reading.roundId,
      // it was read then, and says nothing of what was set since
      takenAt: one.takenAt,
      body: {
        ...{ point: reading.point, reading: one.reading, asTyped: one.asTyped, takes: one.id },
        ...{ crankAngle: one.crankAngle, beforeLock: one.beforeLock, narrowBlade: one.narrowBlade },
        ...{ reason: `taken of two: as ${one.by} read it`, instrumentId: null, over: reading.id },
      },
    });
  return (
    <Note>
      <b>Two of you read {reading.point} without seeing each other.</b> {reading.by} read {interval(reading)}{' '}
      {unit}, {crossed.by} read {interval(crossed)} {unit}. Both are kept; {reading.by}’s stands until one is
      taken, or it is measured again.
      {enabled && (
        <div className="pads">
          {[reading, crossed].map((one) => (
            <Button key={one.id} onClick={() => take(one)}>
              Take {one.by}’s
            </Button>
          ))}
        </div>
      )}
    </Note>
  );
}
