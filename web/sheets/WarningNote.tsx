import { Box } from '@chakra-ui/react';
import type { Warning } from './warnings.ts';
import { Question } from '../app/Question.tsx';

interface Props {
  readonly warning: Warning;
  readonly onUse?: (suggestion: string) => void;
  readonly onSettle: (key: string) => void;
}

/** Asks in place about a figure that looks like a slip; it never blocks a person who is sure. */
export function WarningNote({ warning, onUse, onSettle }: Props) {
  const { key, text, suggestions } = warning;
  return (
    <Box gridColumn="1 / -1">
      <Question
        answers={[
          { label: 'It is as the source says', onChoose: () => onSettle(key) },
          ...(onUse ? suggestions : []).map((each) => ({
            label: `Use ${each}`,
            onChoose: () => onUse!(each),
          })),
        ]}
      >
        {text}
        {suggestions.length === 1 && ` Did you mean ${suggestions[0]}?`}
      </Question>
    </Box>
  );
}
