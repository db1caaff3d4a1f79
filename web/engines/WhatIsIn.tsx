import { Box } from '@chakra-ui/react';
import type { PieceThere } from '@zero-lash/contract/engines';
import { Link } from 'react-router';
import { lengthWithUnit, tenthsFromMm } from '@zero-lash/core/length';
import { PartHeading } from '../app/Page.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useEnginePiecesQuery } from './endpoints.ts';

const HOW: Readonly<Record<PieceThere['how'], string>> = {
  fitted: 'fitted',
  found: 'found in',
  bare: 'taken out',
};

/** Which piece is under each point, who fitted or measured it, and when; nothing where none is known. */
export function WhatIsIn({ engineId }: { readonly engineId: string }) {
  const { data } = useEnginePiecesQuery(engineId, { refetchOnMountOrArgChange: true });
  const times = useShopTimes();
  if (!data || data.length === 0) return null;
  return (
    <Box as="section" aria-label="What is in">
      <PartHeading>What is in</PartHeading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Pieces by point">
        <Box as="table" css={{ '& td, & th': { paddingInlineEnd: '18px', textAlign: 'left' } }}>
          <tbody>
            {data.map(({ point, thickness, stamped, mark, how, by, at, buildId, build }) => (
              <Box as="tr" key={point} borderBottom="1px solid" borderColor="hairline">
                <Box as="th" {...{ scope: 'row' }} fontFamily="mono">
                  {point}
                </Box>
                <Box as="td" fontWeight="650">
                  {thickness === null ? 'nothing in' : lengthWithUnit(tenthsFromMm(thickness), stamped)}
                </Box>
                <td>{mark && `marked ${mark}`}</td>
                <Box as="td" color="faded">
                  {HOW[how]} by {by}, {times.day(at)}, <Link to={`/builds/${buildId}`}>build {build}</Link>
                </Box>
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
