import { Box, Button, Flex } from '@chakra-ui/react';
import {
  checkInWords,
  checksAt,
  stageIn,
  stagesBefore,
  undoneBy,
  type StageKey,
} from '@zero-lash/core/builds';
import { memo, useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';

/** What a step back goes by: the stage, what was ticked, set and slackened. */
export type BackState = Parameters<typeof undoneBy>[0];

interface Props {
  readonly state: BackState;
  readonly busy: boolean;
  readonly onGo: (to: StageKey) => void;
}

/** A check as it is asked in the job: a fixed one of a stage may say something else there than in a rebuild. */
const asAsked = ({ job, sheet }: BackState, stage: StageKey, check: string): string =>
  checksAt(job, stage).find(({ key }) => key === check)?.text ?? checkInWords(stage, check, sheet.pattern);

/** The way back, over as many stages as are wanted, with what it undoes said before it is gone. */
export const GoBack = memo(function GoBack({ state, busy, onGo }: Props) {
  const earlier = stagesBefore(state.job, state.stage).toReversed();
  const [chosen, setChosen] = useState<StageKey | null>(null);
  const to = chosen !== null && earlier.includes(chosen) ? chosen : earlier[0];
  if (to === undefined) return null;
  const undone = undoneBy(state, to);
  return (
    <Box className="not-on-paper" borderTop="1px solid" borderColor="hairline" marginTop="3" paddingTop="2">
      <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
        {earlier.length > 1 && (
          <Box width="190px">
            <Labelled label="Something was missed at">
              <Select value={to} onChange={({ target }) => setChosen(target.value as StageKey)}>
                {earlier.map((key) => (
                  <option key={key} value={key}>
                    {stageIn(state.job, key).title}
                  </option>
                ))}
              </Select>
            </Labelled>
          </Box>
        )}
        <Button variant="plain" onClick={() => onGo(to)} disabled={busy}>
          Back to {stageIn(state.job, to).title}
        </Button>
      </Flex>
      <Box fontSize="sm" color="faded" marginTop="1">
        {undone.length > 0
          ? `To be ticked again: ${undone.map(({ stage, check }) => asAsked(state, stage, check)).join('; ')}. `
          : ''}
        What was measured and proved stays, until it is changed.
      </Box>
    </Box>
  );
});
