import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { RecheckRow } from '@zero-lash/contract/rechecks';
import { useState, type FormEvent } from 'react';
import { dayInWords } from '../app/dates.ts';
import { Labelled } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { usePlanBenchDayMutation } from './endpoints.ts';

interface Props {
  readonly recheck: Pick<RecheckRow, 'id' | 'engine' | 'dueDate' | 'benchDay' | 'expectedDay' | 'version'>;
  readonly today: string;
  readonly onDone: () => void;
}

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
      <ProblemNote error={error} />
    </form>
  );
}
