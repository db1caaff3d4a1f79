import { Button, Flex } from '@chakra-ui/react';
import { useEffect, useRef, type ReactNode } from 'react';
import { Note } from './Note.tsx';

/** One thing a person may say to a question. */
export interface Answer {
  readonly label: string;
  readonly onChoose: () => void;
}

interface Props {
  readonly children: ReactNode;
  /** what was typed first, then every figure it may have been meant for: side by side, none of them pushed */
  readonly answers: readonly Answer[];
  /** goes back to what was typed, and changes it */
  readonly onChange?: (() => void) | undefined;
  /** the question takes the keyboard: Tab walks its answers, and Enter alone chooses none of them */
  readonly takesFocus?: boolean;
}

/**
 * Asks in place about a figure that looks like a slip. It never blocks and never pushes: no answer is the main button, for the
 * only meaning inside the limits may well be the wrong one.
 */
export function Question({ children, answers, onChange, takesFocus = false }: Props) {
  const note = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (takesFocus) note.current?.focus({ preventScroll: true });
  }, [takesFocus]);
  return (
    <Note role="alert" marginTop="2" ref={note} tabIndex={-1}>
      {children}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {answers.map(({ label, onChoose }) => (
          <Button key={label} onClick={onChoose}>
            {label}
          </Button>
        ))}
        {onChange && (
          <Button variant="plain" onClick={onChange}>
            Change it
          </Button>
        )}
      </Flex>
    </Note>
  );
}
