import { Box, Button, Flex } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { whyNoProof } from '@zero-lash/core/measuring';
import { useState } from 'react';
import { AskButton } from '../app/AskButton.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { Tick } from '../app/Tick.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { useMoveReadingsMutation, useOtherRoundsQuery } from './endpoints.ts';

interface Props {
  readonly buildId: string;
  readonly roundId: string;
  /** what stands in the round that is open */
  readonly readings: readonly ReadingRow[];
}

/** What was read in a round, or part of it, goes to the engine that it was read of, with its trail. */
export function OtherEngine(props: Props) {
  const [open, setOpen] = useState(false);
  const current = props.readings.filter(
    (reading) => reading.roundId === props.roundId && whyNoProof(reading, null) !== 'withdrawn',
  );
  if (current.length === 0) return null;
  return open ? (
    <Move {...props} readings={current} onDone={() => setOpen(false)} />
  ) : (
    <AskButton onAsk={() => setOpen(true)}>It was read of another engine…</AskButton>
  );
}

function Move({ buildId, roundId, readings, onDone }: Props & { readonly onDone: () => void }) {
  const { data: others, error: notAsked } = useOtherRoundsQuery(roundId, { refetchOnMountOrArgChange: true });
  const [move, { error, isLoading }] = useMoveReadingsMutation();
  const { once, waiting, unsent } = useOnceSent(buildId);
  const [chosen, setChosen] = useState<string | null>(null);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const to = chosen ?? others?.[0]?.roundId;
  const points = readings.map(({ point }) => point).filter((point) => !without.has(point));

  async function go() {
    const done = await once(() => move({ buildId, roundId, to: to!, points }));
    if (done && !('error' in done)) onDone();
  }

  return (
    <Box
      as="section"
      aria-label="Of another engine"
      borderTop="1px solid"
      borderColor="hairline"
      paddingY="2"
    >
      {others?.length === 0 && (
        <Box>
          At no other engine the same is measured now. Open the build of the one it was of, up to where it is
          measured, and move it then.
        </Box>
      )}
      {others && others.length > 0 && (
        <>
          <Labelled label="It was read of">
            <Select value={to} onChange={({ target }) => setChosen(target.value)}>
              {others.map(({ roundId: id, engine, build }) => (
                <option key={id} value={id}>
                  {engine}, build {build}
                </option>
              ))}
            </Select>
          </Labelled>
          <Flex gap="0 16px" flexWrap="wrap">
            {readings.map(({ point, asTyped }) => (
              <Tick
                key={point}
                label={`${point}: ${asTyped}`}
                checked={!without.has(point)}
                onChange={({ target }) =>
                  setWithout(
                    new Set(
                      target.checked ? [...without].filter((each) => each !== point) : [...without, point],
                    ),
                  )
                }
              />
            ))}
          </Flex>
          <Box fontSize="sm" color="faded">
            There it stands as it was read, by whom and when, and is judged by that engine’s limits. Here it
            is struck out, with where it went.
          </Box>
        </>
      )}
      <Flex gap="2" marginTop="2">
        {others && others.length > 0 && (
          <Button
            variant="solid"
            disabled={points.length === 0}
            loading={isLoading || waiting}
            onClick={() => void go()}
          >
            Move {points.length === 1 ? 'the reading' : `${points.length} readings`}
          </Button>
        )}
        <Button variant="plain" onClick={onDone}>
          Leave it
        </Button>
      </Flex>
      {unsent && <StillUnsent buildId={buildId} step="readings are moved" />}
      <ProblemNote error={error ?? notAsked} />
    </Box>
  );
}
