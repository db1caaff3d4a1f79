import { recheckDayInWords, runningInWords, type DatedRecheck } from '@zero-lash/core/rechecks';
import { Box, Button, Input } from '@chakra-ui/react';
import type { EngineRow, EngineSort } from '@zero-lash/contract/engines';
import { stageOf } from '@zero-lash/core/builds';
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { useDeferredValue, useState } from 'react';
import { useShortcut } from '../app/useShortcut.ts';
import { Link, useSearchParams } from 'react-router';
import { grouped } from '../app/figures.ts';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { DueMark } from '../rechecks/DueMark.tsx';
import { useEnginesQuery } from './endpoints.ts';
import { onDemand } from '../app/onDemand.tsx';

const EnginesIn = onDemand(async () => (await import('./EnginesIn.tsx')).EnginesIn);
const NewEngineForm = onDemand(async () => (await import('./NewEngineForm.tsx')).NewEngineForm);

/** When an engine's recheck is, beside how near it is. */
function RecheckDay({ of }: { readonly of: DatedRecheck & Pick<EngineRow, 'usageUnit'> }) {
  const { today } = useShopTimes();
  return (
    <Box as="span" color="faded" fontSize="sm" marginLeft="2">
      {recheckDayInWords(of, today(), of.usageUnit)}
    </Box>
  );
}

const column = createColumnHelper<EngineRow>();

const COLUMNS = [
  column.accessor('name', {
    header: 'Engine',
    cell: ({ row }) => (
      <Link
        to={`/engines/${row.original.id}`}
        style={{ fontWeight: 600, display: 'block', padding: '10px 0' }}
      >
        {row.original.name}
      </Link>
    ),
  }),
  column.accessor('owner', { header: 'Owner' }),
  column.accessor('sheetName', { header: 'Pattern' }),
  column.accessor('usage', {
    header: 'Run',
    cell: ({ row }) => runningInWords(row.original.usage, row.original.usageUnit, grouped),
  }),
  column.accessor((row) => (row.stage ? stageOf(row.stage).title : ''), {
    id: 'stage',
    header: 'Stage',
    cell: ({ row, getValue }) =>
      row.original.buildId ? (
        <Link to={`/builds/${row.original.buildId}`}>{getValue()}</Link>
      ) : (
        'no build open'
      ),
  }),
  column.accessor((row) => row.recheck?.state ?? '', {
    id: 'recheck',
    header: 'Recheck',
    cell: ({ row: { original } }) =>
      original.recheck === null && original.buildId === null && original.putAway === null ? (
        <Link to={`/engines/${original.id}?last-checked`}>Last checked…</Link>
      ) : (
        original.recheck && (
          <Box>
            <DueMark state={original.recheck.state} />
            <RecheckDay of={{ ...original, ...original.recheck }} />
          </Box>
        )
      ),
  }),
];

/** Engines a step, and how many at the most: no list longer than this is read. */
const PAGE = 100;
const MOST_SHOWN = 500;

/** Every engine of the shop: looked for by any word, sorted by any column. */
export default function EnginesPage() {
  const [params, setParams] = useSearchParams();
  const search = params.get('search') ?? '';
  const away = params.get('away') !== null;
  const looked = useDeferredValue(search.slice(0, 60));
  const [sorting, setSorting] = useState<SortingState>([]);
  const [shown, setShown] = useState(PAGE);
  const [by] = sorting;
  const { data, error, refetch, isFetching } = useEnginesQuery({
    search: looked,
    ...(away ? { away: 'true' } : {}),
    ...(by ? { sort: by.id as EngineSort, order: by.desc ? 'desc' : 'asc' } : {}),
    limit: shown,
  });
  const [adding, setAdding] = useState(false);
  const [elsewhere, setElsewhere] = useState(false);
  const { mayWork } = useRole();
  const table = useReactTable({
    data: data?.engines ?? [],
    columns: COLUMNS,
    state: { sorting },
    onSortingChange: setSorting,
    // every engine of the shop is sorted, not only those shown: the server does it
    manualSorting: true,
    enableMultiSort: false,
    sortDescFirst: false,
    getCoreRowModel: getCoreRowModel(),
  });
  useShortcut('/', (event) => {
    event.preventDefault();
    document.querySelector<HTMLInputElement>('#engine-search')?.focus();
  });
  return (
    <Page
      title="Engines"
      under={
        data &&
        `${data.total} ${data.total === 1 ? 'engine' : 'engines'}${away ? ' retired' : ''}${search ? ' found' : ''}`
      }
      actions={
        <>
          <Input
            id="engine-search"
            type="search"
            aria-label="Look for an engine by name, serial, owner, duty or pattern"
            placeholder="Name, serial, owner, pattern"
            width="280px"
            value={search}
            maxLength={60}
            onChange={(event) => setParams(paramsOf(event.target.value, away), { replace: true })}
          />
          <Button
            variant="plain"
            aria-pressed={away}
            onClick={() => setParams(paramsOf(search, !away), { replace: true })}
          >
            {away ? 'Those in the shop' : 'Sold or retired'}
          </Button>
          <Button variant="plain" aria-expanded={elsewhere} onClick={() => setElsewhere(!elsewhere)}>
            Import and export
          </Button>
          {mayWork && !adding && <Button onClick={() => setAdding(true)}>New engine</Button>}
        </>
      }
    >
      <ProblemNote error={error} onRetry={refetch} />
      {elsewhere && <EnginesIn />}
      {adding && <NewEngineForm onDone={() => setAdding(false)} />}
      {data && data.engines.length === 0 && (
        <Empty>
          {search
            ? `No engine has “${search}” in its name, serial, owner, duty or pattern.`
            : away
              ? 'No engine was retired.'
              : 'No engine yet. Add the one on the stand with “New engine”.'}
        </Empty>
      )}
      {data && data.engines.length > 0 && (
        <Box overflowX="auto" tabIndex={0} role="region" aria-label="Engines">
          <table>
            <thead>
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id}>
                  {group.headers.map((header) => (
                    <Box
                      as="th"
                      key={header.id}
                      borderBottom="1px solid"
                      borderColor="ink"
                      aria-sort={ARIA_SORT[String(header.column.getIsSorted())]}
                    >
                      <Button
                        variant="plain"
                        textDecoration="none"
                        paddingX="0"
                        onClick={header.column.getToggleSortingHandler()}
                      >
                        {flexRender(header.column.columnDef.header, header.getContext())}
                        <span aria-hidden>{SORT_SIGNS[String(header.column.getIsSorted())]}</span>
                      </Button>
                    </Box>
                  ))}
                </tr>
              ))}
            </thead>
            <tbody>
              {table.getRowModel().rows.map((row) => (
                <Box
                  as="tr"
                  key={row.id}
                  borderBottom="1px solid"
                  borderColor="hairline"
                  _hover={{ background: 'wash' }}
                >
                  {row.getVisibleCells().map((cell) => (
                    <Box as="td" key={cell.id} paddingRight="4" height="44px">
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </Box>
                  ))}
                </Box>
              ))}
            </tbody>
          </table>
          {data.total > data.engines.length && (
            <Box color="faded" paddingY="2" display="flex" gap="4" alignItems="center">
              {data.engines.length} of {data.total}
              {shown < MOST_SHOWN ? (
                <Button
                  loading={isFetching && data.engines.length < shown - PAGE + 1}
                  onClick={() => setShown(shown + PAGE)}
                >
                  Show {Math.min(PAGE, data.total - data.engines.length)} more
                </Button>
              ) : (
                'Look for a name to see the rest.'
              )}
            </Box>
          )}
        </Box>
      )}
    </Page>
  );
}

const paramsOf = (search: string, away: boolean) => ({
  ...(search ? { search } : {}),
  ...(away ? { away: '' } : {}),
});

const ARIA_SORT: Record<string, 'ascending' | 'descending' | 'none'> = {
  asc: 'ascending',
  desc: 'descending',
  false: 'none',
};
const SORT_SIGNS: Record<string, string> = { asc: '▴', desc: '▾', false: '' };
