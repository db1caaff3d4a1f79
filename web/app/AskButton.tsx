import { Button } from '@chakra-ui/react';
import { memo } from 'react';
import { useStable } from './useStable.ts';

interface Props {
  readonly onAsk: () => void;
  /** what is asked for, with … where a form follows */
  readonly children: string;
}

/** A quiet button that opens what is seldom wanted: drawn once, however often what stands round it is drawn again. */
export function AskButton({ onAsk, children }: Props) {
  return <Shown onAsk={useStable(onAsk)}>{children}</Shown>;
}

const Shown = memo(function Shown({ onAsk, children }: Props) {
  return (
    <Button variant="plain" paddingX="0" justifySelf="start" alignSelf="start" onClick={onAsk}>
      {children}
    </Button>
  );
});
