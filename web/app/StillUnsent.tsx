import { Box } from '@chakra-ui/react';
import { useAppSelector } from './store.ts';
import { useSession } from './useSession.ts';

/** Says that a step waits for what is still unsent of a build, and for whom: only they can have it sent. */
export function StillUnsent({ buildId, step }: { readonly buildId: string; readonly step: string }) {
  const me = useSession()?.person.id;
  const items = useAppSelector((state) => state.outbox.items);
  const names = new Set(
    items
      .filter((item) => item.buildId === buildId && item.refused === null && item.personId !== me)
      .map(({ by }) => by),
  );
  return (
    <Box role="alert" fontSize="sm" color="tight">
      What was done here is still to be sent: {step} when the server has it.
      {[...names].map((name) => ` What ${name} did is sent when ${name} signs in on this device again.`)}
    </Box>
  );
}
