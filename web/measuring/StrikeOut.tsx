import type { ReadingRow } from '@zero-lash/contract/measuring';
import { whyNoProof } from '@zero-lash/core/measuring';
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
        put(struckOut(reading, reason));
        return true;
      }}
    />
  );
}

/** A reading struck out, as it is written. */
const struckOut = ({ id, roundId, point }: ReadingRow, reason: string) => ({
  kind: 'reading' as const,
  roundId,
  body: {
    ...{ point, reading: { kind: 'tries' as const, tries: [], repeatability: 0.01 }, asTyped: 'struck out' },
    ...{ reason, instrumentId: null, crankAngle: null, over: id },
  },
});

/** Strikes out at once whatever stands in a round: it was of another engine, or taken as it must not be. */
export function StrikeOutRound({
  buildId,
  readings,
}: {
  readonly buildId: string;
  /** what stands in the round that is open */
  readonly readings: readonly ReadingRow[];
}) {
  const put = useBenchWrite(buildId);
  const current = readings.filter((reading) => whyNoProof(reading, null) !== 'withdrawn');
  if (current.length < 2) return null;
  return (
    <WithReason
      ask="Strike the whole round out…"
      label="Struck out because"
      action={`Strike out ${current.length} readings`}
      missing="Say in a word why none of it counts."
      follows="Each stays on the record as it was read, with why it does not count; every point is then measured again."
      onDo={(reason) => {
        for (const reading of current) put(struckOut(reading, reason));
        return true;
      }}
    />
  );
}
