import { hasMeter } from '@zero-lash/core/rechecks';
import { Box, Button } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import { obstaclesToSignOff, statusOf } from '@zero-lash/core/builds';
import { dayInWords } from '../app/dates.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { Labelled, TextArea } from '../app/Labelled.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { seenUpTo } from '../builds/seenUpTo.ts';
import { HowItRan } from '../ran/HowItRan.tsx';
import { Additions } from './Additions.tsx';
import { BuildPapers } from './BuildPapers.tsx';
import { CameLate } from './CameLate.tsx';
import { useSignOffMutation } from './endpoints.ts';
import { WhatIsSigned } from './WhatIsSigned.tsx';

/** Where a lead signs a build off, or what still stands against it. */
export function SignOff({ build }: { readonly build: BuildView }) {
  const { mayLead } = useRole();
  const [statement, setStatement] = useKeptText(`statement:${build.id}`);
  const [sign, { error, isLoading }] = useSignOffMutation();
  const { once, waiting, unsent } = useOnceSent(build.id);
  if (build.signOff)
    return (
      <Box>
        <PartHeading>Signed off</PartHeading>
        {build.signOff.by}, <ShopTime at={build.signOff.at} day />
        {hasMeter(build.engine.usageUnit) && `, at ${build.signOff.usage} ${build.engine.usageUnit}`}.
        {build.signOff.accepted.length > 0 && (
          <Box marginTop="2">Left as they were: {build.signOff.accepted.join(', ')}.</Box>
        )}
        {build.signOff.statement && <Box marginTop="2">“{build.signOff.statement}”</Box>}
        <CameLate build={build} />
        <Additions build={build} />
        <BuildPapers build={build} />
        <HowItRan build={build} />
      </Box>
    );
  if (build.lastChecked)
    return (
      <Box>
        <PartHeading>Last checked</PartHeading>
        {dayInWords(build.lastChecked.on)}, by {build.lastChecked.by}
        {hasMeter(build.engine.usageUnit) && `, at ${build.lastChecked.usage} ${build.engine.usageUnit}`}.
        Written down by {build.openedBy}, <ShopTime at={build.openedAt} day />: nobody signed it here.
      </Box>
    );
  const status = statusOf(build);
  const obstacles = obstaclesToSignOff(status);
  const letStand = [...status.accepted];
  return (
    <Box>
      <PartHeading>Sign off</PartHeading>
      {obstacles.length > 0 ? (
        obstacles.map(({ code, text }) => <Box key={code}>{text}</Box>)
      ) : (
        <Box>
          {letStand.length > 0
            ? `Everything is ticked off. Every point is proved in spec but ${letStand.join(', ')}, left as is: the recheck comes in half the time.`
            : 'Every point is proved in spec and everything is ticked off.'}
        </Box>
      )}
      <WhatIsSigned build={build} />
      {mayLead ? (
        <Box display="grid" gap="3" marginTop="3">
          <Labelled label="Remark (may stay empty)">
            <TextArea
              value={statement}
              onChange={(event) => setStatement(event.target.value)}
              maxLength={500}
            />
          </Labelled>
          <Button
            variant="solid"
            disabled={obstacles.length > 0}
            loading={isLoading || waiting}
            onClick={() =>
              void once(() =>
                sign({ buildId: build.id, version: build.version, seq: seenUpTo(build.id), statement }),
              )
            }
          >
            Sign off and plan the recheck
          </Button>
        </Box>
      ) : (
        <Box color="faded" marginTop="2">
          A lead signs it off.
        </Box>
      )}
      <BuildPapers build={build} />
      {unsent && <StillUnsent buildId={build.id} step="the build is signed off" />}
      <ProblemNote error={error} />
    </Box>
  );
}
