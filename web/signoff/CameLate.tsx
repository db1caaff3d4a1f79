import { Box } from '@chakra-ui/react';
import type { BuildHead } from '@zero-lash/contract/builds';
import type { BuildView } from '../builds/buildView.ts';
import { ShopTime } from '../app/ShopTime.tsx';

const WHAT: Readonly<Record<BuildHead['late'][number]['what'], string>> = {
  reading: 'measured',
  setting: 'set',
  wear: 'the wear sheet',
  headwork: 'head work',
  ledger: 'the count of parts',
};

/** What was done before a build was signed off and came in after: beside the signature, for all to see. */
export function CameLate({ build: { late } }: { readonly build: BuildView }) {
  if (late.length === 0) return null;
  return (
    <Box as="section" marginTop="2" aria-label="Came in after it was signed off">
      <b>Came in after it was signed off</b>
      <ul>
        {late.map(({ what, point, said, by, takenAt, cameAt }) => (
          <Box
            as="li"
            key={`${what} ${point} ${cameAt}`}
            borderTop="1px solid"
            borderColor="hairline"
            paddingY="1"
          >
            {point === null ? WHAT[what] : `${point} ${WHAT[what]}`}
            {said && `: ${said}`}; by {by}, <ShopTime at={takenAt} />, and here since <ShopTime at={cameAt} />
          </Box>
        ))}
      </ul>
    </Box>
  );
}
