import { Box, Button } from '@chakra-ui/react';
import type { Round } from '@zero-lash/contract/measuring';
import { meantAt, type RoundKind } from '@zero-lash/core/builds';
import { hotClock, type HotClock as Clock } from '@zero-lash/core/measuring';
import { useCoarseNow } from '../app/useCoarseNow.ts';
import { useHeld } from '../app/useHeld.ts';
import { Note } from '../app/Note.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

type Timed = Pick<BuildView, 'sheet' | 'rounds'>;

/** The clock of an engine that is measured hot in a kind of round, from when it was last said to be shut down, in whichever round. */
function clockOf({ sheet, rounds }: Timed, kind: RoundKind | null, now: number): Clock | null {
  const said = rounds
    .flatMap(({ conditions }) => conditions)
    .toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const meant = meantAt(sheet, kind);
  return meant && hotClock(meant, said, now);
}

/**
 * Whether an engine had cooled past its sheet's time as a point came up, or as something was said of its warmth since: what was begun at a
 * point is ended there.
 *
 * @param kind of the round that is read; null where none is
 * @param visit another one with every point
 */
export function useCooled({ sheet, rounds }: Timed, kind: RoundKind | null, visit: string): boolean {
  const now = useCoarseNow();
  const said = rounds.reduce((sum, { conditions }) => sum + conditions.length, 0);
  return useHeld(`${visit} ${said}`, clockOf({ sheet, rounds }, kind, now)?.left === 0);
}

interface Props {
  readonly build: BuildView;
  /** in which its conditions are said */
  readonly round: Pick<Round, 'id' | 'kind' | 'conditions'>;
  readonly enabled: boolean;
}

/** How long an engine that is measured hot still is as hot as its sheet means, and where it is said that it was shut down. */
export function HotClock({ build, round, enabled }: Props) {
  const put = useBenchWrite(build.id);
  const now = useCoarseNow();
  if (meantAt(build.sheet, round.kind)?.condition !== 'hot') return null;
  const clock = clockOf(build, round.kind, now);
  const shutDown = () =>
    put({
      kind: 'conditions',
      roundId: round.id,
      body: {
        ...{ engineTempC: round.conditions.at(-1)?.engineTempC ?? null, hoursSinceRun: 0, condition: 'hot' },
      },
    });
  const over = clock?.left === 0;
  return (
    <Note tone={over ? 'tight' : 'brass'} role="status">
      {clock === null
        ? 'Its gaps hold for a hot engine: run it until it is as warm as the sheet says, shut it down, make it safe, and start the clock.'
        : `Shut down ${clock.minutes} min ago${
            clock.holds === null
              ? '; the sheet does not say how long its figures hold.'
              : over
                ? `: the ${clock.holds} min in which the sheet’s figures hold are over. What is left waits: close it up as far as it may run, run it warm again, and measure the rest then.`
                : `: the sheet’s figures hold for ${clock.left} min more.`
          }`}
      {enabled && (
        <Box marginTop="1">
          <Button onClick={shutDown}>
            {clock === null ? 'Shut down now' : 'Run warm again, shut down now'}
          </Button>
        </Box>
      )}
    </Note>
  );
}
