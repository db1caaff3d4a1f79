import { Box, Button, Flex } from '@chakra-ui/react';
import { memo, useState } from 'react';
import { remindersRead } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

interface Props {
  readonly roundId: string;
  /** something was measured in it already */
  readonly begun: boolean;
}

/** What changes a reading, said once a round beside the entry: not again at each load, nor once it was begun. */
export const Reminders = memo(function Reminders({ roundId, begun }: Props) {
  const read = useAppSelector((state) => state.preferences.reminded.includes(roundId));
  const dispatch = useAppDispatch();
  // what stands above the pads does not go away under a finger that is coming down on them
  const [begunBefore] = useState(begun);
  if (read || begunBefore) return null;
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
