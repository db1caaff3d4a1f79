import { Box } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import { stageOf } from '@zero-lash/core/builds';
import type { Aim } from '@zero-lash/core/setting';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../people/useRole.ts';
import { useChangeBuildMutation } from '../builds/endpoints.ts';

const AIMS: Readonly<Record<Aim, string>> = {
  middle: 'middle of the band: room to move either way',
  'exhaust-loose': 'exhaust at the loose end: exhausts close up as seats bed in',
  'loose-end': 'loose end everywhere: longest before anything goes tight',
  'tight-end': 'tight end everywhere: quietest, and nearest to trouble',
};

/** Which school of aim the build follows. */
export function AimChoice({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const [send, { error, isLoading }] = useChangeBuildMutation();
  return (
    <Box maxWidth="520px" marginBottom="3">
      <Labelled label="Aim at">
        <Select
          value={build.aim}
          disabled={!mayWork || isLoading || !stageOf(build.stage).sets}
          onChange={(event) =>
            void send({
              buildId: build.id,
              version: build.version,
              complaint: build.complaint,
              aim: event.target.value as Aim,
            })
          }
        >
          {Object.entries(AIMS).map(([aim, words]) => (
            <option key={aim} value={aim}>
              {words}
            </option>
          ))}
        </Select>
      </Labelled>
      <ProblemNote error={error} />
    </Box>
  );
}
