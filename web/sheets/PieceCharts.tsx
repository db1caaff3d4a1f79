import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { roleChart } from '@zero-lash/core/setting';
import { meansFor, pieceUnit, resolveLimits, ROLE_WORDS, rolesOf, type Role } from '@zero-lash/core/sheets';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { useLengths } from '../app/lengths.ts';
import { useSession } from '../app/useSession.ts';
import { PartHeading } from '../app/Page.tsx';
import { saveFile } from '../app/saveFile.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** Which piece to fit, measured down and fitted across, for each role that is set by graded pieces; nothing where none is. */
export function PieceCharts({ sheet }: { readonly sheet: SheetRevision }) {
  const roles = rolesOf(sheet.pattern).filter((role) => 'sizes' in meansFor(sheet.pattern, role));
  const [shown, setShown] = useState<Role | null>(null);
  if (roles.length === 0) return null;
  return (
    <Box as="section" aria-label="Piece charts" marginTop="6">
      <PartHeading>Which piece to fit</PartHeading>
      {roles.map((role) => (
        <Flex key={role} gap="3" flexWrap="wrap" alignItems="center" paddingY="1">
          <Box width="140px">{ROLE_WORDS[role]}</Box>
          <Button aria-expanded={shown === role} onClick={() => setShown(shown === role ? null : role)}>
            {shown === role ? 'Hide the chart' : 'Show the chart'}
          </Button>
          <a
            href={`/api/sheet-revisions/${sheet.id}/piece-chart?role=${role}`}
            target="_blank"
            rel="noreferrer"
            className="zl-tool"
          >
            <Printer size={18} aria-hidden /> {ROLE_WORDS[role]} chart (PDF)
          </a>
        </Flex>
      ))}
      {shown && <Chart sheet={sheet} role={shown} />}
    </Box>
  );
}

function Chart({ sheet, role }: { readonly sheet: SheetRevision; readonly role: Role }) {
  const { figure, unit, length } = useLengths(pieceUnit(sheet.pattern, role));
  const rule = useSession()?.shop.singleRule ?? null;
  const chart = roleChart(sheet.pattern, role, resolveLimits(sheet.limits, rule));
  if (!chart) return null;
  const { installed: sizes, target } = chart;
  const range = ({ from, to }: { readonly from: number; readonly to: number }) =>
    `${figure(from)}–${figure(to)}`;
  return (
    <Box marginTop="2">
      <Box fontSize="sm" color="faded">
        Gap measured down, piece fitted now across, {unit}; to {length(target)}. Where the maker prints a
        chart of his own it governs. – : no size made brings it in.
      </Box>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label={`Chart, ${ROLE_WORDS[role]}`}>
        <Box
          as="table"
          fontFamily="mono"
          css={{ '& td, & th': { paddingInline: '6px', whiteSpace: 'nowrap', textAlign: 'right' } }}
        >
          <thead>
            <Box as="tr" borderBottom="1px solid" borderColor="ink">
              <th scope="col">gap</th>
              {sizes.map((size) => (
                <th key={size} scope="col">
                  {figure(size)}
                </th>
              ))}
            </Box>
          </thead>
          <tbody>
            {chart.clearances.map((clearance, row) => (
              <Box as="tr" key={clearance.from} borderBottom="1px solid" borderColor="hairline">
                <th scope="row">{range(clearance)}</th>
                {chart.rows[row]!.map((size, column) => (
                  <Box as="td" key={sizes[column]} color={typeof size === 'number' ? 'ink' : 'faded'}>
                    {size === null ? '–' : size === 'keep' ? 'keep' : figure(size)}
                  </Box>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
      <Button
        marginTop="2"
        onClick={() =>
          saveFile(
            `pieces-${sheet.name}-${role}.csv`,
            writeCsv(
              ['gap from mm', 'gap to mm', ...sizes.map((size) => `fitted ${size}`)],
              chart.clearances.map(({ from, to }, row) => [from, to, ...chart.rows[row]!]),
            ),
          )
        }
      >
        Save as CSV
      </Button>
    </Box>
  );
}
