import { Box, Button } from '@chakra-ui/react';
import { memo } from 'react';
import { ShopTime } from '../app/ShopTime.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { WithReason } from '../app/WithReason.tsx';
import { useRole } from '../app/useRole.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useAbandonBuildMutation, useRestoreBuildMutation } from '../builds/endpoints.ts';

interface Props {
  readonly id: string;
  readonly version: number;
  readonly signed: boolean;
  readonly abandoned: boolean;
  readonly closed: boolean;
}

/** Where a build opened by mistake is put out of the way, and where it is brought back. */
export const Abandon = memo(function Abandon(props: Props) {
  const { id, version, signed, abandoned, closed } = props;
  const { mayWork } = useRole();
  const [abandon, { error: notAbandoned, isLoading }] = useAbandonBuildMutation();
  const { once, waiting, unsent } = useOnceSent(id);
  const [restore, { error: notRestored, isLoading: restoring }] = useRestoreBuildMutation();
  if (!mayWork || signed) return null;
  if (abandoned)
    return (
      <Box>
        <Button loading={restoring} onClick={() => void restore({ buildId: id, version })}>
          Bring this build back
        </Button>
        <ProblemNote error={notRestored} />
      </Box>
    );
  if (closed) return null;
  return (
    <Box>
      <WithReason
        draft={`abandon:${id}`}
        ask="Abandon this build…"
        label="Abandoned because"
        action="Abandon this build"
        missing="Say in a line why: it is kept with the record."
        follows="The build is kept as it is and may be brought back; it counts for nothing. A build that ran before it goes on, with its recheck."
        most={200}
        busy={isLoading || waiting}
        onDo={async (why) => {
          const done = await once(() => abandon({ buildId: id, version, why }));
          return done !== undefined && !('error' in done);
        }}
      />
      {unsent && <StillUnsent buildId={id} step="the build is abandoned" />}
      <ProblemNote error={notAbandoned} />
    </Box>
  );
});

/** Says of an abandoned build that it is, by whom and why. */
export const AbandonedNote = memo(function AbandonedNote({ abandoned }: Pick<BuildView, 'abandoned'>) {
  if (!abandoned) return null;
  return (
    <Box color="faded">
      Abandoned by {abandoned.by}, <ShopTime at={abandoned.at} day />: {abandoned.why}
    </Box>
  );
});
