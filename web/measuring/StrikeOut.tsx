import type { ReadingRow } from '@zero-lash/contract/measuring';
import { WithReason } from '../app/WithReason.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

interface Props {
  readonly buildId: string;
  /** the reading that stands at the point, in the round that is open */
  readonly reading: ReadingRow;
}

/** Strikes a reading out, with a reason: the point is then not measured, and what was struck out stays on the record. */
export function StrikeOut({ buildId, reading }: Props) {
  const put = useBenchWrite(buildId);
  return (
    <WithReason
      ask="Strike this reading out…"
      label="Struck out because"
      action="Strike out"
      missing="Say in a word why it does not count."
      onDo={(reason) => {
        put({
          kind: 'reading',
          roundId: reading.roundId,
          body: {
            point: reading.point,
            reading: { kind: 'tries', tries: [], repeatability: 0.01 },
            asTyped: 'struck out',
            reason,
            instrumentId: null,
            crankAngle: null,
            over: reading.id,
          },
        });
        return true;
      }}
    />
  );
}
