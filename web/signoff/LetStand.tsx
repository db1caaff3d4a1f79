import { Box, Button } from '@chakra-ui/react';
import { acceptedPoints, checkKey, mayAccept, provenBy, PROVING } from '@zero-lash/core/builds';
import type { AtPointProps } from '../builds/atPoint.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';

/** Where a lead lets a point stand that was left alone and is at the edge of its band, or wide; others see that it waits. */
export function LetStand({ build, point }: AtPointProps) {
  const put = useBenchWrite(build.id);
  const { mayLead } = useRole();
  const proofs = provenBy(build);
  if (!mayAccept(point.key, { ...build, proofs })) return null;
  const accepted = acceptedPoints(build, proofs).has(point.key);
  const check = checkKey('accepted', point.key);
  const by = build.ticks.find((tick) => tick.done && tick.check === check)?.by;
  const tick = (done: boolean) => put({ kind: 'tick', body: { stage: PROVING, check, done } });
  return (
    <Box borderTop="1px solid" borderColor="hairline" paddingTop="2" marginTop="2">
      {accepted ? (
        <Box>
          {by} lets {point.key} stand as it is. It is named at sign-off, and its recheck comes in half the
          time.
        </Box>
      ) : (
        <Box color="faded">
          {point.key} {proofs.has(point.key) ? 'was left alone with a reason' : 'cannot be reached'}.{' '}
          {mayLead
            ? 'If you leave it as it is, it is named at sign-off and its recheck comes in half the time.'
            : proofs.has(point.key)
              ? 'A lead may leave it as it is; otherwise go back to Set.'
              : 'A lead may leave it as it is; or it is measured after all.'}
        </Box>
      )}
      {mayLead && (
        <Button marginTop="2" onClick={() => tick(!accepted)}>
          {accepted ? 'Take that back' : `Let ${point.key} stand`}
        </Button>
      )}
    </Box>
  );
}
