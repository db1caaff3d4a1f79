import { Box, Button, Flex } from '@chakra-ui/react';
import { ShopTime } from '../app/ShopTime.tsx';
import { Fold } from '../app/Fold.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import {
  useAddCalendarFeedMutation,
  useCalendarFeedsQuery,
  useWithdrawCalendarFeedMutation,
} from './endpoints.ts';

/** Private addresses by which a calendar program of one's own reads every planned recheck. */
export function Feeds() {
  return (
    <Fold title={<b>In your own calendar</b>} ruled="above">
      <Addresses />
    </Fold>
  );
}

function Addresses() {
  const { data: feeds } = useCalendarFeedsQuery();
  const [add, adding] = useAddCalendarFeedMutation();
  const [withdraw, withdrawing] = useWithdrawCalendarFeedMutation();
  const made = adding.data;
  return (
    <>
      <Box fontSize="sm" color="faded" marginBottom="2">
        Whoever has the address reads every planned recheck without signing in. It is shown once. Withdraw it
        and it leads nowhere.
      </Box>
      {made && (
        <Box fontFamily="mono" marginBottom="2" overflowWrap="anywhere" role="status">
          {location.origin}
          {made.path}
        </Box>
      )}
      {(feeds ?? []).map(({ id, madeAt, withdrawnAt }) => (
        <Flex
          key={id}
          gap="3"
          alignItems="center"
          minHeight="44px"
          borderBottom="1px solid"
          borderColor="hairline"
        >
          <Box flex="1">
            made <ShopTime at={madeAt} />
            {withdrawnAt && (
              <>
                , withdrawn <ShopTime at={withdrawnAt} />
              </>
            )}
          </Box>
          {!withdrawnAt && (
            <Button variant="plain" loading={withdrawing.isLoading} onClick={() => void withdraw(id)}>
              Withdraw
            </Button>
          )}
        </Flex>
      ))}
      <Button marginTop="2" loading={adding.isLoading} onClick={() => void add()}>
        Create an address
      </Button>
      <ProblemNote error={adding.error ?? withdrawing.error} />
    </>
  );
}
