import { Box, Button, Flex } from '@chakra-ui/react';
import type { RecheckSearch } from '@zero-lash/contract/rechecks';
import type { DueState } from '@zero-lash/core/rechecks';
import { useState } from 'react';
import { Link } from 'react-router';
import { Choice } from '../app/Choice.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { onDemand } from '../app/onDemand.tsx';
import { DueMark } from './DueMark.tsx';
import { useRecheckFiltersQuery, useRechecksQuery } from './endpoints.ts';
import { PlanTogether } from './PlanTogether.tsx';
import { RecheckLine } from './RecheckLine.tsx';
import { Feeds } from './Feeds.tsx';
import { Reminders } from './Reminders.tsx';
import './rechecks.css';

const SeasonCalendar = onDemand(async () => (await import('./SeasonCalendar.tsx')).SeasonCalendar);

const STATES: readonly DueState[] = ['not-held', 'overdue', 'due', 'coming', 'waiting'];
const PAGE = 50;
const VIEWS = { list: 'as a list', calendar: 'as a calendar' } as const;

/** Every planned recheck of the shop: overdue, due and coming, as a list or over the months. */
export default function RechecksPage() {
  const [narrow, setNarrow] = useState<RecheckSearch>({});
  const [view, setView] = useState<keyof typeof VIEWS>('list');
  const [shown, setShown] = useState(PAGE);
  const { data, error, refetch, isFetching } = useRechecksQuery(
    { ...narrow, limit: Math.min(500, shown) },
    { refetchOnMountOrArgChange: true },
  );
  const set = (change: RecheckSearch) => {
    setShown(PAGE);
    setNarrow(({ ...before }) =>
      Object.fromEntries(Object.entries({ ...before, ...change }).filter(([, value]) => value !== '')),
    );
  };
  return (
    <Page
      title="Rechecks"
      under="Whether the gaps held, and when to check again"
      actions={
        <>
          <Link className="zl-tool" to="/fleet">
            What our engines say
          </Link>
          <Link className="zl-tool" to="/owners">
            Owners
          </Link>
        </>
      }
    >
      <ProblemNote error={error} onRetry={refetch} />
      {data && (
        <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
          <div className="rechecks-states" role="group" aria-label="How near">
            <button type="button" aria-pressed={!narrow.state} onClick={() => set({ state: '' as never })}>
              all {Object.values(data.counts).reduce((sum, count) => sum + count, 0)}
            </button>
            {STATES.map((state) => (
              <button
                key={state}
                type="button"
                aria-pressed={narrow.state === state}
                onClick={() => set({ state })}
              >
                <b>{data.counts[state]}</b> <DueMark state={state} />
              </button>
            ))}
          </div>
          <Flex gap="3" flexWrap="wrap" alignItems="flex-end">
            <Filters narrow={narrow} onNarrow={set} />
            <Box width={{ base: 'calc(50% - 6px)', md: '180px' }}>
              <Labelled label="Shown">
                <Choice of={VIEWS} value={view} onChoose={setView} />
              </Labelled>
            </Box>
          </Flex>
          {narrow.place && (
            <PlanTogether key={narrow.place} place={narrow.place} rechecks={data.rechecks} today={data.day} />
          )}
          {view === 'calendar' ? (
            <SeasonCalendar narrow={narrow} today={data.day} />
          ) : (
            <Box as="section" aria-label="Rechecks">
              {data.rechecks.length === 0 && (
                <Empty>
                  {Object.keys(narrow).length > 0
                    ? 'None is planned that fits.'
                    : 'None is planned. The first is planned when a build is signed off.'}
                </Empty>
              )}
              {data.rechecks.map((recheck) => (
                <RecheckLine key={recheck.id} recheck={recheck} today={data.day} />
              ))}
              {data.total > data.rechecks.length && (
                <Button
                  variant="plain"
                  loading={isFetching}
                  onClick={() => setShown((before) => before + PAGE)}
                >
                  {data.total - data.rechecks.length} more
                </Button>
              )}
            </Box>
          )}
          <Feeds />
          <Reminders />
        </Box>
      )}
    </Page>
  );
}

interface FiltersProps {
  readonly narrow: RecheckSearch;
  readonly onNarrow: (change: RecheckSearch) => void;
}

function Filters({ narrow, onNarrow }: FiltersProps) {
  const { data } = useRecheckFiltersQuery();
  const choices = [
    ['Owner', 'owner', data?.owners ?? []],
    ['Place', 'place', (data?.places ?? []).map((place) => ({ id: place, name: place }))],
    ['Pattern', 'sheet', data?.sheets ?? []],
  ] as const;
  return choices.map(([label, key, all]) => (
    <Box key={key} width={{ base: 'calc(50% - 6px)', md: '200px' }}>
      <Labelled label={label}>
        <Select value={narrow[key] ?? ''} onChange={({ target }) => onNarrow({ [key]: target.value })}>
          <option value="">all</option>
          {all.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Labelled>
    </Box>
  ));
}
