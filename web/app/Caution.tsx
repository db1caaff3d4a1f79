import { Box, Flex } from '@chakra-ui/react';
import { OctagonAlert } from 'lucide-react';
import type { ReactNode } from 'react';

/** A caution, in our own words; the maker's manual governs. */
export function Caution({ children }: { readonly children: ReactNode }) {
  return (
    <Flex gap="2" alignItems="flex-start" paddingY="1">
      <Box color="brass" flexShrink={0} paddingTop="2px">
        <OctagonAlert size={18} aria-label="Caution" />
      </Box>
      <Box fontSize="sm">{children}</Box>
    </Flex>
  );
}
