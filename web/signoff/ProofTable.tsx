import { Box } from '@chakra-ui/react';
import { PartHeading } from '../app/Page.tsx';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { GapBar } from '../drawings/GapBar.tsx';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import type { KnownGap } from '@zero-lash/core/measuring';
import { bothNames } from '@zero-lash/core/sheets';
import { proofLines } from '@zero-lash/core/signoff';

/** Every point from how it was found to how it is proved, beside what was forecast. */
export function ProofTable({ build }: { readonly build: BuildView }) {
  const { interval, figure } = useLengths();
  const said = (gap: KnownGap | null) => (gap ? interval(gap) : '–');
  return (
    <Box as="section" aria-label="From found to proved">
      <PartHeading>Point by point</PartHeading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Every point">
        <Box as="table" css={{ '& td, & th': { paddingInlineEnd: '16px', textAlign: 'left' } }}>
          <thead>
            <Box as="tr" borderBottom="1px solid" borderColor="ink">
              {['Point', 'As found', 'Should be', 'Proved', ''].map((title) => (
                <th key={title} scope="col">
                  {title}
                </th>
              ))}
            </Box>
          </thead>
          <tbody>
            {proofLines(build).map(({ point, found, forecast, proved, leftAsFound }) => (
              <Box as="tr" key={point.key} borderBottom="1px solid" borderColor="hairline">
                <Box as="th" {...{ scope: 'row' }} fontFamily="mono">
                  {bothNames(build.sheet.pattern, point.key)}
                </Box>
                <Box as="td" color="faded">
                  {said(found)}
                </Box>
                <td>{said(forecast)}</td>
                <td>
                  <b>{said(proved)}</b> {proved && <VerdictMark state={proved.verdict} />}
                  {proved?.onLimit && ' only by the allowance'}
                  {leftAsFound && ' as found'}
                </td>
                <td>
                  {proved && (
                    <GapBar
                      min={point.min}
                      max={point.max}
                      gap={proved}
                      state={proved.verdict}
                      width={120}
                      figure={figure}
                    />
                  )}
                </td>
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
