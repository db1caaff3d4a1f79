import { Box, Button, Flex } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import { lashPoints } from '@zero-lash/core/sheets';
import { newestRound } from '@zero-lash/core/builds';
import { onMeter } from '@zero-lash/core/rechecks';
import { useState } from 'react';
import { useStore } from 'react-redux';
import { Link } from 'react-router';
import { dayInWords } from '../app/dates.ts';
import { ShopTime } from '../people/ShopTime.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { DueMark, OUTCOME_WORDS } from './DueMark.tsx';
import type { RootState } from '../app/store.ts';
import { whenSent } from '../app/sender.ts';
import { leftToMeasure } from '../builds/points.ts';
import { useRole } from '../people/useRole.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useCloseRecheckMutation } from './endpoints.ts';

/** The build's rechecks: the next one and its work, and what earlier ones said. */
export function Rechecks({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const put = useBenchWrite(build.id);
  const [unsent, setUnsent] = useState(false);
  const [close, closing] = useCloseRecheckMutation();
  const next = build.rechecks.find(({ status }) => status === 'planned');
  const past = build.rechecks.filter(({ status }) => status === 'done');
  const newest = newestRound(build.rounds, 'recheck');
  const round = newest?.recheckId === next?.id ? newest : undefined;
  const store = useStore<RootState>();
  const [sending, setSending] = useState(false);
  const judge = async (recheckId: string) => {
    setSending(true);
    const sent = await whenSent(store, build.id);
    setSending(false);
    setUnsent(!sent);
    if (sent) await close({ recheckId });
  };
  const left = leftToMeasure(lashPoints(build.sheet.pattern), round);
  return (
    <Box>
      <PartHeading>Rechecks</PartHeading>
      {next && (
        <Box borderBottom="1px solid" borderColor="hairline" paddingBottom="3">
          <Flex gap="3" alignItems="baseline" flexWrap="wrap">
            <b>Recheck {next.sequence}</b>
            {next.state && <DueMark state={next.state} />}
          </Flex>
          <Box color="faded">
            {[
              next.dueDate && `by ${dayInWords(next.dueDate)}`,
              next.dueUsage !== null &&
                `at ${onMeter(next.dueUsage, build.engine)} ${build.engine.usageUnit}`,
            ]
              .filter(Boolean)
              .join(' or ')}
            , whichever is first; now at {build.engine.usage}
            {build.engine.running !== build.engine.usage && `, ${build.engine.running} run in all`}
          </Box>
          {mayWork && !build.closedAt && !round && (
            <Button
              variant="solid"
              marginTop="2"
              onClick={() => put({ kind: 'round', recheckId: next.id, sequence: next.sequence })}
            >
              Measure it now
            </Button>
          )}
          {mayWork && round && (
            <Flex gap="3" alignItems="center" marginTop="2" flexWrap="wrap">
              <Button
                variant="solid"
                disabled={left > 0}
                loading={closing.isLoading || sending}
                onClick={() => void judge(next.id)}
              >
                Judge the recheck
              </Button>
              {left > 0 && <Box color="faded">{left === 1 ? '1 point' : `${left} points`} to measure</Box>}
            </Flex>
          )}
          {unsent && (
            <Box role="alert" fontSize="sm" color="tight">
              What was measured is still to be sent: the recheck is judged when the server has it all.
            </Box>
          )}
          <RefusedNotes
            buildId={build.id}
            which={({ kind, within }) => kind === 'round' && within === next.id}
          />
          <ProblemNote error={closing.error} />
        </Box>
      )}
      {past.map((recheck) => (
        <Box key={recheck.id} paddingY="2" borderBottom="1px solid" borderColor="hairline">
          <b>Recheck {recheck.sequence}</b> {recheck.doneAt && <ShopTime at={recheck.doneAt} day />}:{' '}
          {recheck.outcome && OUTCOME_WORDS[recheck.outcome]}, by {recheck.doneBy}
        </Box>
      ))}
      {past[0]?.outcome === 'out' && !build.closedAt && (
        <Box marginTop="3">
          A point has left its band.{' '}
          <Link to={`/engines/${build.engine.id}`}>Open a build on the engine</Link> to set it again.
        </Box>
      )}
    </Box>
  );
}
