import { Box, Heading } from '@chakra-ui/react';
import { stageOf } from '@zero-lash/core/builds';
import { useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useRole } from '../app/useRole.ts';
import { baselineSystems } from './baselineSystems.ts';
import { BareBaseline } from './BareBaseline.tsx';
import { EqualBaseline } from './EqualBaseline.tsx';

const WAYS = {
  found: 'as it was found, with what was in',
  equal: 'one equal piece everywhere, then measured',
  bare: 'nothing in, and a known offset',
} as const;
type Way = keyof typeof WAYS;

/** What the gaps of a fresh head are measured with before anything is chosen for them. */
export function Baseline({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const [way, setWay] = useState<Way>('found');
  const systems = baselineSystems(build.sheet);
  if (systems.length === 0) return null;
  const enabled = mayWork && !build.closedAt && stageOf(build.stage).sets;
  const shown = way === 'bare' ? systems.filter(({ mayBeBare }) => mayBeBare) : systems;
  return (
    <Box as="section" aria-label="Baseline" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="2">
      <Heading as="h3" fontSize="lg" fontWeight="650">
        Baseline
      </Heading>
      <Box maxWidth="420px">
        <Labelled label="Measured first">
          <Select value={way} onChange={({ target }) => setWay(target.value as Way)}>
            {(Object.keys(WAYS) as Way[])
              .filter((each) => each !== 'bare' || systems.some(({ mayBeBare }) => mayBeBare))
              .map((each) => (
                <option key={each} value={each}>
                  {WAYS[each]}
                </option>
              ))}
          </Select>
        </Labelled>
      </Box>
      {way !== 'found' &&
        shown.map((system) =>
          way === 'equal' ? (
            <EqualBaseline key={system.key} build={build} system={system} enabled={enabled} />
          ) : (
            <BareBaseline key={system.key} build={build} system={system} enabled={enabled} />
          ),
        )}
    </Box>
  );
}
