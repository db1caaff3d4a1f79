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
  const { key, text, suggestion } = warning;
  return (
    <Box gridColumn="1 / -1">
      <Question
        answers={[
          { label: 'It is as the source says', onChoose: () => onSettle(key) },
          ...(suggestion && onUse ? [{ label: `Use ${suggestion}`, onChoose: () => onUse(suggestion) }] : []),
        ]}
      >
        {text}
        {suggestion && ` Did you mean ${suggestion}?`}
      </Question>
    </Box>
  );
}
