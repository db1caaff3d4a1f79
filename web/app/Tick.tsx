import { Box } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

interface Props extends Omit<ComponentProps<'input'>, 'type'> {
  readonly label: string;
  /** who ticked it, or what else stands at the end of its line */
  readonly aside?: string | undefined;
}

/** A yes or no, its box and its words one large target. */
export function Tick({ label, aside, ...box }: Props) {
  return (
    <Box
      as="label"
      className="tick"
      display="flex"
      gap="3"
      alignItems="center"
      minHeight="44px"
      cursor={box.disabled ? 'default' : 'pointer'}
    >
      <input
        type="checkbox"
        {...box}
        style={{ width: 22, height: 22, flexShrink: 0, accentColor: 'var(--zl-colors-ink)' }}
      />
      <span>{label}</span>
      {aside && (
        <Box as="span" marginLeft="auto" fontSize="sm" color="faded">
          {aside}
        </Box>
      )}
    </Box>
  );
}
