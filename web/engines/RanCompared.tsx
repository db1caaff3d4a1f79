import { Box } from '@chakra-ui/react';
import { RAN_KINDS, type RanKind, type RanLine } from '@zero-lash/contract/ran';
import { Link } from 'react-router';
import { PartHeading } from '../app/Page.tsx';
import { useEngineRanQuery } from './endpoints.ts';
import { useShopTimes } from '../app/useShopTimes.ts';

/** How an engine ran, its builds side by side; nothing where nobody said anything. */
export function RanCompared({ engineId }: { readonly engineId: string }) {
  const { data } = useEngineRanQuery(engineId, { refetchOnMountOrArgChange: true });
  const times = useShopTimes();
  if (!data || data.length === 0) return null;
  const said = (Object.keys(RAN_KINDS) as RanKind[]).filter((kind) =>
    data.some(({ entries }) => entries.some(({ lines }) => lines.some((line) => line.kind === kind))),
  );
  return (
    <Box as="section" aria-label="How it ran">
      <PartHeading>How it ran, build by build</PartHeading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Builds side by side">
        <Box
          as="table"
          css={{ '& td, & th': { paddingInlineEnd: '18px', textAlign: 'left', verticalAlign: 'top' } }}
        >
          <thead>
            <Box as="tr" borderBottom="1px solid" borderColor="ink">
              <td />
              {data.map(({ buildId, number, signedAt }) => (
                <th key={buildId} scope="col">
                  <Link to={`/builds/${buildId}`}>Build {number}</Link>
                  <Box color="faded" fontSize="sm" fontWeight="400">
                    {signedAt && times.day(signedAt)}
                  </Box>
                </th>
              ))}
            </Box>
          </thead>
          <tbody>
            {said.map((kind) => (
              <Box as="tr" key={kind} borderBottom="1px solid" borderColor="hairline">
                <th scope="row">{RAN_KINDS[kind]}</th>
                {data.map(({ buildId, entries }) => (
                  <td key={buildId}>
                    {entries
                      .flatMap(({ lines }) => lines.filter((line) => line.kind === kind))
                      .map((line, index) => (
                        <Box key={index}>{cellOf(line)}</Box>
                      ))}
                  </td>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}

const cellOf = ({ value, unit, text }: RanLine) =>
  [value === null ? '' : `${value}${unit === '' ? '' : ` ${unit}`}`, text].filter(Boolean).join(', ');
