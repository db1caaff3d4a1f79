import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { RecheckRow } from '@zero-lash/contract/rechecks';
import { useState, type FormEvent } from 'react';
import { dayInWords } from '../app/dates.ts';
import { Note } from '../app/Note.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { usePlanBenchDayMutation } from './endpoints.ts';

interface Props {
  readonly recheck: Pick<
    RecheckRow,
    | 'id'
    | 'engine'
    | 'dueDate'
    | 'benchDay'
    | 'expectedDay'
    | 'version'
    | 'season'
    | 'seasonFrom'
    | 'seasonUntil'
  >;
  readonly today: string;
  readonly onDone: () => void;
}

/** Whether a day lies in the season that a recheck was to come before; of one without an end every day from its first. */
const isInSeason = ({ seasonFrom, seasonUntil }: Props['recheck'], day: string) =>
  seasonFrom !== null && day >= seasonFrom && day <= (seasonUntil ?? day);

/** Plans the day on which an engine stands on the bench: no later than it is due. */
export function PlanDay({ recheck, today, onDone }: Props) {
  const last = recheck.dueDate && recheck.dueDate >= today ? recheck.dueDate : null;
  const expected = recheck.expectedDay && recheck.expectedDay >= today ? recheck.expectedDay : today;
  const [day, setDay] = useState(recheck.benchDay ?? expected);
  const [plan, { error, isLoading }] = usePlanBenchDayMutation();
  const send = async (to: string | null) => {
    const answer = await plan({ recheckId: recheck.id, day: to, version: recheck.version });
    if (!('error' in answer)) onDone();
  };
  return (
    <form
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        void send(day);
      }}
    >
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
        <Box width="200px">
          <Labelled
            label={`On the bench, ${recheck.engine}`}
            hint={last ? `by ${dayInWords(last)}` : undefined}
          >
            <Input
              type="date"
              required
              min={today}
              {...(last ? { max: last } : {})}
              value={day}
              onChange={({ target }) => setDay(target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit" variant="solid" loading={isLoading}>
          Plan it
        </Button>
        {recheck.benchDay && (
          <Button variant="plain" onClick={() => void send(null)}>
            Take it off the bench
          </Button>
        )}
      </Flex>
      {isInSeason(recheck, day) && (
        <Note>
          {recheck.season || 'Its season'} has begun by then
          {recheck.seasonUntil
            ? ` and lasts until ${dayInWords(recheck.seasonUntil)}`
            : ', and nobody has said when it ends'}
          : the engine is wanted, and runs unchecked until it is looked at.
        </Note>
      )}
      <ProblemNote error={error} />
    </form>
  );
}
