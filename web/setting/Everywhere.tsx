import { Button } from '@chakra-ui/react';
import { useState } from 'react';

/** The button that writes a baseline down at every point, and asks once whether it was done. */
export function Everywhere({
  label,
  enabled,
  onDo,
}: {
  readonly label: string;
  readonly enabled: boolean;
  readonly onDo: () => void;
}) {
  const [done, setDone] = useState(false);
  return (
    <Button
      variant="solid"
      disabled={!enabled || done}
      onClick={() => {
        setDone(true);
        onDo();
      }}
    >
      {done ? 'Written down at every point' : label}
    </Button>
  );
}
