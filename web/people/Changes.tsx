import { Box } from '@chakra-ui/react';
import { Empty, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { usePeopleChangesQuery } from './endpoints.ts';
import { ShopTime } from '../app/ShopTime.tsx';

/** What was changed of people, and by whom: who may sign off and publish is on the record too. */
export function Changes() {
  const { data, error, refetch } = usePeopleChangesQuery();
  return (
    <Box as="section" marginTop="6">
      <PartHeading>Changes to people</PartHeading>
      <ProblemNote error={error} onRetry={refetch} />
      {data?.length === 0 && <Empty>Nothing was changed yet.</Empty>}
      {data?.map((change) => (
        <Box key={change.id} paddingY="1" borderBottom="1px solid" borderColor="hairline">
          <b>{change.person}</b>: {change.what.join(', ')}
          <Box as="span" color="faded" fontSize="sm">
            {' '}
            by {change.by}, <ShopTime at={change.at} />
          </Box>
        </Box>
      ))}
    </Box>
  );
}
