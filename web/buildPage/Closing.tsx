import { jobOf } from '@zero-lash/core/builds';
import { Tighten } from '../assembly/Tighten.tsx';
import { HeatCycles } from '../assembly/HeatCycles.tsx';
import { WhereTheyGo } from '../assembly/WhereTheyGo.tsx';
import { CountIn } from '../parts/CountIn.tsx';
import { Access } from './OpenUp.tsx';
import { SignOff } from '../signoff/SignOff.tsx';
import { Pressures } from '../wear/Pressures.tsx';
import { Box } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';

/** Closing an engine: everything counted in, its pressures once more, and a lead's name. */
export function Closing({ build }: { readonly build: BuildView }) {
  return (
    <>
      <Access build={build} going="back" />
      <CountIn build={build} />
      <WhereTheyGo build={build} />
      <Tighten build={build} stage="close" />
      {jobOf(build.job).strips && <HeatCycles build={build} />}
      <Box as="details">
        <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
          Compression and leak-down, once more
        </Box>
        <Pressures build={build} />
      </Box>
      <SignOff build={build} />
    </>
  );
}
