import { folded } from '@zero-lash/core/fleet';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineList, EngineRow } from '@zero-lash/contract/engines';
import { useMemo, useState } from 'react';
import { problemFrom } from '../app/api.ts';
import { Labelled } from '../app/Labelled.tsx';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { useOutbox } from '../app/useOutbox.ts';
import { useStable } from '../app/useStable.ts';
import { useEnginesDownInfiniteQuery } from '../engines/endpoints.ts';
import { useRole } from '../app/useRole.ts';
import { useSession } from '../app/useSession.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { draftTyped } from '../app/drafts.ts';
import { figureOf, NOTHING, sentAs, type Typed } from './figures.ts';
import { FromMeters } from './FromMeters.tsx';
import { UsageFile } from './UsageFile.tsx';
import { UsageTable } from './UsageTable.tsx';
import './usage.css';

/** Where what somebody typed is kept on the device: nobody writes down what another read. */
const typedBy = (person: string | undefined) => `usage:${person}`;

/** The usage log: every engine in one list, its meter typed straight down; from a file, or from a feed. */
export default function UsagePage() {
  const { mayWork } = useRole();
  const times = useShopTimes();
  const put = useOutbox();
  // eslint-disable-next-line no-restricted-syntax -- what is looked for is not written down
  const [search, setSearch] = useState('');
  // eslint-disable-next-line no-restricted-syntax -- a day left there would be believed of tomorrow’s figures
  const [day, setDay] = useState('');
  const [typed, setTyped] = useTyped();
  const [sent, setSent] = useState<ReadonlySet<string>>(new Set());
  const { engines, total, error, refetch, more } = useMeters(search);
  const set = useStable((id: string, change: Partial<Typed>) =>
    setTyped({ ...typed, [id]: { ...(typed[id] ?? NOTHING), ...change } }),
  );
  const known = useSeen(engines);
  const lines = Object.entries(typed).flatMap(([id, figures]) => {
    const engine = known.get(id);
    const line = engine ? figureOf(engine, figures, day || null, times.today()) : null;
    // what is wrong or odd holds back only itself
    return !engine || line === null || 'error' in line ? [] : [{ engine, line }];
  });
  function writeDown() {
    for (const { engine, line } of lines) put(sentAs(engine, line));
    const written = new Set(lines.map(({ engine }) => engine.id));
    setSent(new Set([...sent, ...written]));
    setTyped(Object.fromEntries(Object.entries(typed).filter(([id]) => !written.has(id))));
  }
  return (
    <Page
      title="Usage"
      under="What every engine has run: typed down the list, from a file, or from its meter"
    >
      <ProblemNote error={error} onRetry={refetch} />
      <FromMeters />
      {mayWork && <UsageFile />}
      <Flex gap="3" flexWrap="wrap" alignItems="flex-end" marginY="3">
        <Box width="240px">
          <Labelled label="Find">
            <Input value={search} maxLength={60} onChange={({ target }) => setSearch(target.value)} />
          </Labelled>
        </Box>
        {mayWork && (
          <Box width="190px">
            <Labelled label="Read on (today, if empty)">
              <Input
                type="date"
                max={times.today()}
                value={day}
                onChange={({ target }) => setDay(target.value)}
              />
            </Labelled>
          </Box>
        )}
        {mayWork && (
          <Button variant="solid" disabled={lines.length === 0} onClick={writeDown}>
            Write down {lines.length > 0 ? lines.length : ''}
          </Button>
        )}
      </Flex>
      {total !== undefined && engines.length === 0 && <Empty>No engine fits.</Empty>}
      <UsageTable
        engines={engines}
        typed={typed}
        day={day || null}
        today={times.today()}
        enabled={mayWork}
        sent={sent}
        onType={set}
        onMore={more}
      />
    </Page>
  );
}

/** Every engine that was in the list since the page was opened: one that was typed into is written down whatever is looked for next. */
function useSeen(engines: readonly EngineRow[]): ReadonlyMap<string, EngineRow> {
  const [seen, setSeen] = useState({ from: engines, by: byId(engines) });
  if (seen.from === engines) return seen.by;
  const by = new Map([...seen.by, ...byId(engines)]);
  setSeen({ from: engines, by });
  return by;
}

const byId = (engines: readonly EngineRow[]): ReadonlyMap<string, EngineRow> =>
  new Map(engines.map((engine) => [engine.id, engine]));

/** What was typed and not written down yet, which stays on this device. */
function useTyped() {
  const dispatch = useAppDispatch();
  const key = typedBy(useSession()?.person.id);
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>(
    JSON.parse(useAppSelector((state) => state.drafts[key]) ?? '{}'),
  );
  return [
    typed,
    (now: Readonly<Record<string, Typed>>) => {
      setTyped(now);
      dispatch(draftTyped({ key, text: Object.keys(now).length === 0 ? '' : JSON.stringify(now) }));
    },
  ] as const;
}

/**
 * Every engine with its meter, or those that are looked for. Where the server is not reached they are looked for among those
 * this device knows.
 */
function useMeters(search: string) {
  const options = { refetchOnMountOrArgChange: true };
  const all = useEnginesDownInfiniteQuery('', options);
  const found = useEnginesDownInfiniteQuery(search, { ...options, skip: search === '' });
  const away = found.error && problemFrom(found.error)?.code === 'unreached';
  const read = search === '' || (away && all.data) || !found.data ? all : found;
  const rows = useMemo(() => rowsOf(read.data?.pages ?? []), [read.data]);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = read;
  const more = useStable(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  });
  const here = useMemo(() => lookedFor(rows.engines, search), [rows.engines, search]);
  if (search === '' || !away || !all.data) {
    const { error, refetch } = search === '' ? all : found;
    return { ...rows, error, refetch, more };
  }
  return { engines: here, total: here.length, error: undefined, refetch: found.refetch, more };
}

const lookedFor = (engines: readonly EngineRow[], search: string) =>
  engines.filter(({ name, serial, owner, place }) =>
    folded([name, serial, owner, place].join(' ')).includes(folded(search.trim())),
  );

/** The rows of pages asked for one after another: an engine that moved down the list meanwhile stands once. */
function rowsOf(pages: readonly EngineList[]) {
  const engines = new Map(pages.flatMap((page) => page.engines.map((engine) => [engine.id, engine])));
  return { engines: [...engines.values()], total: pages.at(-1)?.total };
}
