import { Box } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';

interface Props {
  readonly title: ReactNode;
  /** where the line stands that sets it off from its neighbours */
  readonly ruled: 'above' | 'below' | 'none';
  readonly children: ReactNode;
}

/** Something that is folded away: what is in it is made, and asked for, once somebody opens it. */
export function Fold({ title, ruled, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      as="details"
      borderTop={ruled === 'above' ? '1px solid' : undefined}
      borderBottom={ruled === 'below' ? '1px solid' : undefined}
      borderColor="hairline"
      onToggle={(event) => setOpen((event.target as HTMLDetailsElement).open)}
    >
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        {title}
      </Box>
      {open && children}
    </Box>
  );
}
