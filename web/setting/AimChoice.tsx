import { Box } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import { stageOf } from '@zero-lash/core/builds';
import type { Aim } from '@zero-lash/core/setting';
import { useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useChangeBuildMutation } from '../builds/endpoints.ts';
import { OwnAims } from './OwnAims.tsx';

const AIMS: Readonly<Record<Aim, string>> = {
  middle: 'middle of the band: room to move either way',
  'exhaust-loose': 'exhaust at the loose end: exhausts close up as seats bed in',
  'loose-end': 'loose end everywhere: longest before anything goes tight',
  'tight-end': 'tight end everywhere: quietest, and nearest to trouble',
  own: 'figures of our own',
};

/** Which school of aim the build follows. */
export function AimChoice({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const [send, { error, isLoading }] = useChangeBuildMutation();
  // own figures are not gone by before they are said
  const [saying, setSaying] = useState(false);
  const enabled = mayWork && !isLoading && stageOf(build.stage).sets;
  const own = saying || build.aim === 'own';
  return (
    <Box maxWidth="520px" marginBottom="3">
      <Labelled label="Aim at">
        <Select
          value={own ? 'own' : build.aim}
          disabled={!enabled}
          onChange={(event) => {
            const aim = event.target.value as Aim;
            setSaying(aim === 'own');
            if (aim === 'own') return;
            void send({ buildId: build.id, version: build.version, complaint: build.complaint, aim });
          }}
        >
          {Object.entries(AIMS).map(([aim, words]) => (
            <option key={aim} value={aim}>
              {words}
            </option>
          ))}
        </Select>
      </Labelled>
      <ProblemNote error={error} />
      {own && enabled && <OwnAims build={build} onKept={() => setSaying(false)} />}
    </Box>
  );
}
