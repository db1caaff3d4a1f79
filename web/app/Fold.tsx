import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';

interface Props {
  readonly title: ReactNode;
  /** where the line stands that sets it off from its neighbours */
  readonly ruled: 'above' | 'below' | 'none';
  /** its name in the address of the page: one that is named there is open, and in sight */
  readonly name?: string;
  readonly children: ReactNode;
}

/** Something that is folded away: what is in it is made, and asked for, once somebody opens it. */
export function Fold({ title, ruled, name, children }: Props) {
  const { hash } = useLocation();
  const named = name !== undefined && hash === `#${name}`;
  const [open, setOpen] = useState(named);
  const details = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    if (!named || !details.current) return;
    details.current.open = true;
    details.current.scrollIntoView({ block: 'start' });
  }, [named]);
  return (
    <chakra.details
      ref={details}
      id={name}
      borderTop={ruled === 'above' ? '1px solid' : undefined}
      borderBottom={ruled === 'below' ? '1px solid' : undefined}
      borderColor="hairline"
      onToggle={({ currentTarget }) => setOpen(currentTarget.open)}
    >
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        {title}
      </Box>
      {open && children}
    </chakra.details>
  );
}
