import { Box } from '@chakra-ui/react';
import { Link } from 'react-router';
import { dayInWords } from '../app/dates.ts';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useSheetsQuery } from './endpoints.ts';
import { SheetActions } from './SheetActions.tsx';
import { MEANS_SHORT, STATUS_WORDS } from './words.ts';

/** Every spec sheet of the shop. */
export default function SheetsPage() {
  const { data, error, refetch } = useSheetsQuery();
  const { mayWork } = useRole();
  return (
    <Page
      title="Spec sheets"
      under="Limits from a named source; nothing is measured without one"
      actions={mayWork && <SheetActions />}
    >
      <ProblemNote error={error} onRetry={refetch} />
      {data?.length === 0 && <Empty>No spec sheet yet. Write the first one, or read one from a file.</Empty>}
      {data && data.length > 0 && (
        <Box overflowX="auto" tabIndex={0} role="region" aria-label="Spec sheets">
          <table>
            <thead>
              <Box as="tr" borderBottom="1px solid" borderColor="ink">
                {[
                  'Pattern',
                  'Cylinders',
                  'Lash points',
                  'Set by',
                  'Measured',
                  'Source',
                  'Engines',
                  'Revision',
                ].map((title) => (
                  <Box
                    as="th"
                    key={title}
                    {...{ scope: 'col' }}
                    fontWeight="650"
                    paddingRight="4"
                    height="44px"
                  >
                    {title}
                  </Box>
                ))}
              </Box>
            </thead>
            <tbody>
              {data.map((sheet) => (
                <Box as="tr" key={sheet.id} borderBottom="1px solid" borderColor="hairline">
                  <td>
                    <Link
                      to={`/sheets/${sheet.id}`}
                      style={{ fontWeight: 600, display: 'block', padding: '11px 16px 11px 0' }}
                    >
                      {sheet.maker} {sheet.name}
                    </Link>
                  </td>
                  <td>
                    {sheet.cylinders}{' '}
                    {sheet.layout === 'single'
                      ? ''
                      : sheet.layout === 'v'
                        ? 'in a V'
                        : sheet.layout === 'flat'
                          ? 'flat'
                          : 'in line'}
                  </td>
                  <td>{sheet.points}</td>
                  <td>{MEANS_SHORT[sheet.means]}</td>
                  <td>{sheet.condition}</td>
                  <td>{sheet.manual}</td>
                  <td>{sheet.engines}</td>
                  <td>
                    {sheet.number}, {STATUS_WORDS[sheet.status]} {dayInWords(sheet.updatedOn)}
                    {sheet.unread && ', read by nobody else yet'}
                    {sheet.drafting && sheet.status !== 'draft' && ' (a newer one in draft)'}
                  </td>
                </Box>
              ))}
            </tbody>
          </table>
        </Box>
      )}
    </Page>
  );
}
