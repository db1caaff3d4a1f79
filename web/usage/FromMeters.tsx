import { saysSomething } from '@zero-lash/core/bounds';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { MeterQuestion } from '@zero-lash/contract/usage';
import { useState } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { runningTyped } from '../app/figures.ts';
import { WorkedList } from '../app/WorkedList.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { useAnswerMeterMutation, useMeterQuestionsQuery, useTakeFeedMutation } from './endpoints.ts';

/** What the shop's meter feed sent that cannot be as it stands, and a look at the feed. */
export function FromMeters() {
  const { mayWork } = useRole();
  const { data } = useMeterQuestionsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [take, { data: taken, error, isLoading }] = useTakeFeedMutation();
  const [asked, setAsked] = useState(false);
  // what was asked keeps its place when the last of it is answered: the meters below do not come up under a finger
  if (data && data.questions.length > 0 && !asked) setAsked(true);
  if (!data || (!data.feed && !asked)) return null;
  return (
    <Box as="section" aria-label="From the meters" marginBottom="4">
      <WorkedList items={data.questions} keyOf={({ id }) => id} answered="Answered.">
        {(question) => <Question question={question} enabled={mayWork} />}
      </WorkedList>
      {mayWork && data.feed && (
        <Flex gap="3" alignItems="center" marginTop="2">
          <Button loading={isLoading} onClick={() => void take()}>
            Read the meter feed now
          </Button>
          {taken && (
            <Box role="status">
              {taken.taken} written down, {taken.asked} to be asked about.
            </Box>
          )}
        </Flex>
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

function Question({ question, enabled }: { readonly question: MeterQuestion; readonly enabled: boolean }) {
  const { id, serial, at, usage, line, engine, engineId, usageUnit, last, why } = question;
  const [answer, { error, isLoading }] = useAnswerMeterMutation();
  const [old, setOld] = useKeptText(`meter:${id}:old`);
  const [reason, setReason] = useKeptText(`meter:${id}`);
  return (
    <Note
      tone="tight"
      marginBottom="2"
      role="group"
      aria-label={`Meter of ${engine ?? (serial || 'no engine')}`}
    >
      {usage === null ? (
        <>
          The meter feed sent a line that cannot be read, <ShopTime at={at} />:{' '}
          <Box as="code" overflowWrap="anywhere">
            {line}
          </Box>
          . {why}
        </>
      ) : (
        <>
          The meter of <b>{engine ?? serial}</b> sent{' '}
          {[usage, usageUnit].filter((word) => word !== null).join(' ')}, <ShopTime at={at} />
          {last !== null && `; it showed ${last} before`}. {why}
        </>
      )}
      {enabled && (
        <Flex gap="3" alignItems="flex-end" flexWrap="wrap" marginTop="2">
          {engineId && (
            <>
              <Box width="170px">
                <Labelled label={`The old meter stopped at${last === null ? '' : ` (last read ${last})`}`}>
                  <Input
                    maxLength={12}
                    inputMode="decimal"
                    value={old}
                    onChange={({ target }) => setOld(target.value)}
                  />
                </Labelled>
              </Box>
              <Button
                loading={isLoading}
                disabled={Number.isNaN(runningTyped(old))}
                onClick={() => void answer({ id, is: 'new-meter', lastOfOld: runningTyped(old) })}
              >
                A new meter was fitted
              </Button>
              <Box width="200px">
                <Labelled label="Or the figure is right, because">
                  <Input maxLength={200} value={reason} onChange={({ target }) => setReason(target.value)} />
                </Labelled>
              </Box>
              <Button
                variant="plain"
                disabled={!saysSomething(reason)}
                onClick={() => void answer({ id, is: 'right', reason: reason.trim() })}
              >
                It is right
              </Button>
            </>
          )}
          <Button variant="plain" onClick={() => void answer({ id, is: 'left' })}>
            Ignore it
          </Button>
        </Flex>
      )}
      <ProblemNote error={error} />
    </Note>
  );
}
