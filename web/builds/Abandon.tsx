import { Box, Button } from '@chakra-ui/react';
import { ShopTime } from '../people/ShopTime.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { WithReason } from '../app/WithReason.tsx';
import { useRole } from '../people/useRole.ts';
import type { BuildView } from './buildView.ts';
import { useAbandonBuildMutation, useRestoreBuildMutation } from './endpoints.ts';

/** Where a build opened by mistake is put out of the way, and where it is brought back. */
export function Abandon({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const [abandon, { error: notAbandoned, isLoading }] = useAbandonBuildMutation();
  const [restore, { error: notRestored, isLoading: restoring }] = useRestoreBuildMutation();
  if (!mayWork || build.signOff) return null;
  if (build.abandoned)
    return (
      <Box>
        <Button
          loading={restoring}
          onClick={() => void restore({ buildId: build.id, version: build.version })}
        >
          Bring this build back
        </Button>
        <ProblemNote error={notRestored} />
      </Box>
    );
  if (build.closedAt) return null;
  return (
    <Box>
      <WithReason
        ask="Opened by mistake…"
        label="Abandoned because"
        action="Abandon this build"
        missing="Say in a line why: it is kept with the record."
        follows="The build is kept as it is and may be brought back; it counts for nothing. A build that ran before it goes on, with its recheck."
        most={200}
        busy={isLoading}
        onDo={async (why) =>
          !('error' in (await abandon({ buildId: build.id, version: build.version, why })))
        }
      />
      <ProblemNote error={notAbandoned} />
    </Box>
  );
}

/** Says of an abandoned build that it is, by whom and why. */
export function AbandonedNote({ abandoned }: Pick<BuildView, 'abandoned'>) {
  if (!abandoned) return null;
  return (
    <Box color="faded">
      Abandoned by {abandoned.by}, <ShopTime at={abandoned.at} day />: {abandoned.why}
    </Box>
  );
}
