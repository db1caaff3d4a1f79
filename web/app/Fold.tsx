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

/** How long what is in a fold that is named in the address may take to come, and be scrolled to. */
const SETTLED_MS = 1500;

/** Something that is folded away: what is in it is made, and asked for, once somebody opens it. */
export function Fold({ title, ruled, name, children }: Props) {
  const { hash } = useLocation();
  const named = name !== undefined && hash === `#${name}`;
  const [open, setOpen] = useState(named);
  const details = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    const fold = details.current;
    if (!named || !fold) return undefined;
    fold.open = true;
    // what is in it comes a moment later, and is what was asked for
    const watch = new ResizeObserver(() => fold.scrollIntoView({ block: 'start' }));
    watch.observe(fold);
    const settled = setTimeout(() => watch.disconnect(), SETTLED_MS);
    return () => {
      clearTimeout(settled);
      watch.disconnect();
    };
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
