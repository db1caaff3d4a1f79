import { Box, type BoxProps } from '@chakra-ui/react';
import type { Ref } from 'react';

interface Props extends BoxProps {
  /** brass: it asks; tight: something is wrong */
  readonly tone?: 'brass' | 'tight';
  readonly ref?: Ref<HTMLDivElement>;
}

/** Something said or asked where it arose, beside what it is about and never over it. */
export function Note({ tone = 'brass', ...rest }: Props) {
  return <Box borderLeft="4px solid" borderColor={tone} background="raised" padding="3" {...rest} />;
}
