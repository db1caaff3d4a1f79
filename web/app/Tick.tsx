import { Box } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

/** A yes or no, its box and its words one large target. */
export function Tick({ label, ...box }: { readonly label: string } & Omit<ComponentProps<'input'>, 'type'>) {
  return (
    <Box as="label" display="flex" gap="2" alignItems="center" minHeight="44px" cursor="pointer">
      <input
        type="checkbox"
        {...box}
        style={{ width: 22, height: 22, accentColor: 'var(--zl-colors-ink)' }}
      />
      {label}
    </Box>
  );
}
