import { Box, Button, Flex } from '@chakra-ui/react';
import { memo } from 'react';
import { remindersRead } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

/** What changes a reading, said once a round beside the entry. */
export const Reminders = memo(function Reminders({ roundId }: { readonly roundId: string }) {
  const read = useAppSelector((state) => state.preferences.reminded.includes(roundId));
  const dispatch = useAppDispatch();
  if (read) return null;
  return (
    <Flex
      as="aside"
      aria-label="Before the first reading"
      gap="2"
      alignItems="center"
      fontSize="sm"
      borderLeft="4px solid"
      borderColor="brass"
      background="raised"
      paddingX="2"
      marginBottom="2"
    >
      <Box flex="1" paddingY="1">
        Blade clean and dry. Tool off the adjuster. Followers turned free.
      </Box>
      <Button variant="plain" paddingX="2" onClick={() => dispatch(remindersRead(roundId))}>
        Done
      </Button>
    </Flex>
  );
});
