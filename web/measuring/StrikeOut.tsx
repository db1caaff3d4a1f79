import { counted } from '@zero-lash/core/length';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { whyNoProof } from '@zero-lash/core/measuring';
import { useState } from 'react';
import { Button } from '@chakra-ui/react';
import { AskButton } from '../app/AskButton.tsx';
import { Note } from '../app/Note.tsx';
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
      draft={`strike:${reading.id}`}
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
      draft={`strike:${current[0]!.roundId}`}
      ask="Strike the whole round out…"
      label="Struck out because"
      action={`Strike out ${counted(current.length, 'reading')}`}
      missing="Say in a word why none of it counts."
      follows="Each stays on the record as it was read, with why it does not count; every point is then measured again."
      onDo={(reason) => {
        for (const reading of current) put(struckOut(reading, reason));
        return true;
      }}
    />
  );
}

/** How near the stop a reading was taken counts as taken there; crank degrees. */
const THERE = 3;

/**
 * Says afterwards that the engine had been turned back before a stop: slack was taken up the wrong way, and what was read there says
 * nothing.
 */
export function TurnedBack({
  buildId,
  readings,
  at,
}: {
  readonly buildId: string;
  /** what stands in the round that is open */
  readonly readings: readonly ReadingRow[];
  /** where the crank stands; null where that is not known */
  readonly at: number | null;
}) {
  const put = useBenchWrite(buildId);
  const [asked, setAsked] = useState(false);
  const there = readings.filter(
    (reading) =>
      at !== null &&
      reading.crankAngle !== null &&
      Math.abs(reading.crankAngle - at) <= THERE &&
      whyNoProof(reading, null) !== 'withdrawn',
  );
  if (there.length === 0) return null;
  if (!asked)
    return <AskButton onAsk={() => setAsked(true)}>It had been turned back before this stop…</AskButton>;
  return (
    <Note>
      Turned back, slack is taken up the wrong way, and a chain or belt may have jumped: what was read at this
      stop says nothing. Turn on past two turns to the stop again, look at the marks, and measure again:{' '}
      {there.map(({ point }) => point).join(', ')}.
      <div className="pads">
        <Button
          variant="solid"
          onClick={() => {
            for (const reading of there) put(struckOut(reading, 'the engine had been turned back'));
            setAsked(false);
          }}
        >
          Strike out what was read here
        </Button>
        <Button variant="plain" onClick={() => setAsked(false)}>
          It was not
        </Button>
      </div>
    </Note>
  );
}
