import { Box, Button } from '@chakra-ui/react';
import { jobOf, largerJobs, type JobKey } from '@zero-lash/core/builds';
import { memo, useState } from 'react';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useEnlargeJobMutation } from '../builds/endpoints.ts';

interface Props {
  readonly id: string;
  readonly version: number;
  readonly job: JobKey;
  readonly enabled: boolean;
}

/** Where a job becomes a larger one because something was found: its stages are there from then on, and nothing that was measured is lost. */
export const LargerJob = memo(function LargerJob({ id, version, job, enabled }: Props) {
  const [asks, setAsks] = useState(false);
  const [enlarge, { error, isLoading }] = useEnlargeJobMutation();
  const larger = largerJobs(job);
  if (!enabled || larger.length === 0) return null;
  return (
    <Box>
      {!asks && (
        <Button variant="plain" onClick={() => setAsks(true)}>
          More was found than a {jobOf(job).title.toLowerCase()} takes…
        </Button>
      )}
      {asks && (
        <Box as="ul" display="grid" gap="1" aria-label="Larger jobs">
          {larger.map(({ key, title, about }) => (
            <Box as="li" key={key} display="flex" gap="3" alignItems="center" flexWrap="wrap">
              <Button loading={isLoading} onClick={() => void enlarge({ buildId: id, version, job: key })}>
                Make it a {title.toLowerCase()}
              </Button>
              <Box fontSize="sm">{about}</Box>
            </Box>
          ))}
          <li>
            What was measured is kept.{' '}
            <Button variant="plain" onClick={() => setAsks(false)}>
              Leave it
            </Button>
          </li>
        </Box>
      )}
      <ProblemNote error={error} />
    </Box>
  );
});
