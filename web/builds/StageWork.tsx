import { Box, Button, Flex, Heading, chakra } from '@chakra-ui/react';
import type { BuildView } from '@zero-lash/contract/builds';
import { obstaclesTo, STAGE_KEYS, standingOf, stageOf, type StageKey } from '@zero-lash/core/builds';
import { memo, useState } from 'react';
import { useStore } from 'react-redux';
import { ShopTime } from '../people/ShopTime.tsx';
import { TextArea } from '../app/Labelled.tsx';
import { Tick } from '../app/Tick.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import type { RootState } from '../app/store.ts';
import { whenSent } from '../measuring/sender.ts';
import { useRole } from '../people/useRole.ts';
import { useAddNoteMutation, useMoveStageMutation, useTickMutation } from './endpoints.ts';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
  /** the round whose readings must be at the server before the build goes on */
  readonly round: string | undefined;
  /** selects the first point a stage waits for */
  readonly onPoint: (key: string) => void;
  readonly onLook: (stage: StageKey | null) => void;
}

/** What is ticked off and written down at a stage, and the way on to the next. */
export function StageWork({ build, stage, round, onPoint, onLook }: Props) {
  const here = stage === build.stage && !build.closedAt;
  const { mayWork } = useRole();
  return (
    <Box display="grid" gap="4">
      <Checks buildId={build.id} ticks={build.ticks} stage={stage} enabled={here && mayWork} />
      {here && mayWork && stage !== 'run-in' && (
        <Onward build={build} round={round} onPoint={onPoint} onLook={onLook} />
      )}
      <Notes buildId={build.id} notes={build.notes} stage={stage} enabled={mayWork && !build.closedAt} />
    </Box>
  );
}

interface ChecksProps {
  readonly buildId: string;
  readonly ticks: BuildView['ticks'];
  readonly stage: StageKey;
  readonly enabled: boolean;
}

const Checks = memo(function Checks({ buildId, ticks, stage, enabled }: ChecksProps) {
  const [tick, { error }] = useTickMutation();
  const { checks } = stageOf(stage);
  if (checks.length === 0) return null;
  return (
    <fieldset>
      <chakra.legend fontWeight="650">Tick off</chakra.legend>
      {checks.map((check) => {
        const done = ticks.find((row) => row.stage === stage && row.check === check.key);
        return (
          <Box key={check.key} borderBottom="1px solid" borderColor="hairline">
            <Tick
              label={check.text}
              aside={done?.by}
              checked={done !== undefined}
              disabled={!enabled}
              onChange={(event) =>
                void tick({ buildId, stage, check: check.key, done: event.target.checked })
              }
            />
          </Box>
        );
      })}
      <ProblemNote error={error} />
    </fieldset>
  );
});

function Onward({
  build,
  round,
  onPoint,
  onLook,
}: { build: BuildView } & Pick<Props, 'round' | 'onPoint' | 'onLook'>) {
  const [move, { error, isLoading }] = useMoveStageMutation();
  const index = STAGE_KEYS.indexOf(build.stage);
  const next = STAGE_KEYS[index + 1];
  const before = STAGE_KEYS[index - 1];
  const obstacles = obstaclesTo(standingOf(build));
  const waiting = obstacles.flatMap(({ points }) => points)[0];
  const store = useStore<RootState>();
  const [sending, setSending] = useState(false);
  const [unsent, setUnsent] = useState(false);
  const go = async (to: StageKey) => {
    setSending(true);
    const sent = round === undefined || (await whenSent(store, round));
    setSending(false);
    setUnsent(!sent);
    if (!sent) return;
    const result = await move({ buildId: build.id, to, version: build.version });
    if (!('error' in result)) onLook(null);
  };
  return (
    <Box>
      {(build.stage === 'close' ? [] : obstacles).map(({ code, text }) => (
        <Box key={code} fontSize="sm" color="faded">
          {text}
        </Box>
      ))}
      {unsent && (
        <Box role="alert" fontSize="sm" color="tight">
          Readings of this stage are still to be sent: the build goes on when the server has them.
        </Box>
      )}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {next && build.stage !== 'close' && (
          <Button
            variant="solid"
            disabled={obstacles.length > 0}
            loading={isLoading || sending}
            onClick={() => void go(next)}
          >
            Go on to {stageOf(next).title}
          </Button>
        )}
        {waiting && <Button onClick={() => onPoint(waiting)}>Show {waiting}</Button>}
        {before && (
          <Button variant="plain" onClick={() => void go(before)} disabled={isLoading}>
            Back to {stageOf(before).title}
          </Button>
        )}
      </Flex>
      <ProblemNote error={error} />
    </Box>
  );
}

interface NotesProps {
  readonly buildId: string;
  readonly notes: BuildView['notes'];
  readonly stage: StageKey;
  readonly enabled: boolean;
}

const Notes = memo(function Notes({ buildId, notes: all, stage, enabled }: NotesProps) {
  const [text, setText] = useState('');
  const [add, { error, isLoading }] = useAddNoteMutation();
  const notes = all.filter((note) => note.stage === stage);
  const send = async () => {
    const result = await add({ buildId, stage, text: text.trim() });
    if (!('error' in result)) setText('');
  };
  if (!enabled && notes.length === 0) return null;
  return (
    <Box as="section">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Written down here
      </Heading>
      {notes.map((note) => (
        <Box key={note.id} borderTop="1px solid" borderColor="hairline" paddingY="2">
          <Box whiteSpace="pre-wrap">{note.text}</Box>
          <Box fontSize="sm" color="faded">
            {note.by}, <ShopTime at={note.at} />
          </Box>
        </Box>
      ))}
      {enabled && (
        <Flex gap="2" marginTop="1" alignItems="flex-end">
          <TextArea
            aria-label={`Note at ${stageOf(stage).title}`}
            value={text}
            onChange={(event) => setText(event.target.value)}
            maxLength={1000}
            minHeight="44px !important"
            rows={1}
            placeholder="What was seen or done"
          />
          <Button disabled={text.trim() === ''} loading={isLoading} onClick={() => void send()}>
            Add
          </Button>
        </Flex>
      )}
      <ProblemNote error={error} />
    </Box>
  );
});
