import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { RecheckRow } from '@zero-lash/contract/rechecks';
import { useState, type FormEvent } from 'react';
import { problemFrom } from '../app/api.ts';
import { dayInWords } from '../app/dates.ts';
import { Labelled } from '../app/Labelled.tsx';
import { usePlanBenchDayMutation } from './endpoints.ts';

interface Props {
  readonly place: string;
  readonly rechecks: readonly RecheckRow[];
  readonly today: string;
}

/** One bench day for every engine of a place that is due for one: nobody drives there twice. */
export function PlanTogether({ place, rechecks, today }: Props) {
  // eslint-disable-next-line no-restricted-syntax -- a day that is chosen
  const [day, setDay] = useState('');
  const [said, setSaid] = useState<readonly string[]>([]);
  const [plan, { isLoading }] = usePlanBenchDayMutation();
  const open = rechecks.filter(({ onHold, state }) => !onHold && state !== 'not-held');
  if (open.length < 2) return null;
  async function send(event: FormEvent) {
    event.preventDefault();
    const refused: string[] = [];
    for (const { id, engine, version } of open) {
      const answer = await plan({ recheckId: id, day, version });
      if ('error' in answer) refused.push(`${engine}: ${problemFrom(answer.error)!.detail}`);
    }
    setSaid([
      `${open.length - refused.length} of ${open.length} are planned on ${dayInWords(day)}.`,
      ...refused,
    ]);
  }
  return (
    <form onSubmit={(event) => void send(event)}>
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
        <Box width="260px">
          <Labelled label={`All ${open.length} at ${place} on one day`}>
            <Input
              type="date"
              required
              min={today}
              value={day}
              onChange={({ target }) => setDay(target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit" loading={isLoading} disabled={day === ''}>
          Plan them together
        </Button>
      </Flex>
      <Box role="status">
        {said.map((line) => (
          <div key={line}>{line}</div>
        ))}
      </Box>
    </form>
  );
}
