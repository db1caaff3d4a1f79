import { folded } from '@zero-lash/core/fleet';
import { hasMeter, runningInWords } from '@zero-lash/core/rechecks';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineList, EngineRow } from '@zero-lash/contract/engines';
import { useState } from 'react';
import { shallowEqual } from 'react-redux';
import { Link } from 'react-router';
import { problemFrom } from '../app/api.ts';
import { dayInWords } from '../app/dates.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { Labelled } from '../app/Labelled.tsx';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { useOutbox } from '../app/useOutbox.ts';
import { useEnginesQuery } from '../engines/endpoints.ts';
import { useRole } from '../app/useRole.ts';
import { useSession } from '../app/useSession.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { draftTyped } from '../app/drafts.ts';
import { METER_FIGURE } from './endpoints.ts';
import { figureOf, NOTHING, sentAs, type Typed } from './figures.ts';
import { FromMeters } from './FromMeters.tsx';
import { UsageFile } from './UsageFile.tsx';
import './usage.css';

const PAGE = 100;
/** Where what somebody typed is kept on the device: nobody writes down what another read. */
const typedBy = (person: string | undefined) => `usage:${person}`;

/** The usage log: every engine in one list, its meter typed straight down; from a file, or from a feed. */
export default function UsagePage() {
  const { mayWork } = useRole();
  const times = useShopTimes();
  const put = useOutbox();
  // eslint-disable-next-line no-restricted-syntax -- what is looked for is not written down
  const [search, setSearch] = useState('');
  const [shown, setShown] = useState(PAGE);
  // eslint-disable-next-line no-restricted-syntax -- a day left there would be believed of tomorrow’s figures
  const [day, setDay] = useState('');
  const [typed, setTyped] = useTyped();
  const [sent, setSent] = useState<ReadonlySet<string>>(new Set());
  const { engines, total, error, refetch } = useMeters(search, Math.min(500, shown));
  const set = (id: string, change: Partial<Typed>) =>
    setTyped({ ...typed, [id]: { ...(typed[id] ?? NOTHING), ...change } });
  const lines = engines.flatMap((engine) => {
    const line = figureOf(engine, typed[engine.id] ?? NOTHING, day || null, times.today());
    // what is wrong or odd holds back only itself
    return line === null || 'error' in line ? [] : [{ engine, line }];
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
      <table className="usage">
        <thead>
          <tr>
            <th scope="col">Engine</th>
            <th scope="col">Last read</th>
            <th scope="col">Now</th>
            <th scope="col">Heat cycles in all</th>
            <th scope="col">Result</th>
          </tr>
        </thead>
        <tbody>
          {engines.map((engine) => (
            <UsageRow
              key={engine.id}
              engine={engine}
              typed={typed[engine.id] ?? NOTHING}
              day={day || null}
              today={times.today()}
              enabled={mayWork}
              sent={sent.has(engine.id)}
              onType={(change) => set(engine.id, change)}
            />
          ))}
        </tbody>
      </table>
      {total !== undefined && total > engines.length && (
        <Button variant="plain" onClick={() => setShown((before) => before + PAGE)}>
          {total - engines.length} more
        </Button>
      )}
    </Page>
  );
}

interface RowProps {
  readonly engine: EngineRow;
  readonly typed: Typed;
  /** the day it was read on; null for today */
  readonly day: string | null;
  readonly today: string;
  readonly enabled: boolean;
  /** a figure of it was written down here */
  readonly sent: boolean;
  readonly onType: (change: Partial<Typed>) => void;
}

function UsageRow({ engine, typed, day, today, enabled, sent, onType }: RowProps) {
  const line = figureOf(engine, typed, day, today);
  const usage = runningTyped(typed.figure);
  const metered = hasMeter(engine.usageUnit);
  const lower = !Number.isNaN(usage) && usage < engine.usage;
  const odd = line && 'error' in line && line.meant !== undefined ? line : null;
  return (
    <tr>
      <th scope="row">
        <Link to={`/engines/${engine.id}`}>{engine.name}</Link>
        <small>{[engine.owner, engine.place].filter(Boolean).join(' · ')}</small>
      </th>
      <td>
        {runningInWords(engine.usage, engine.usageUnit, grouped)}
        <small>{dayInWords(engine.usageOn)}</small>
      </td>
      <td>
        {metered && (
          <Input
            aria-label={`${engine.name}, now in ${engine.usageUnit}`}
            maxLength={12}
            inputMode="decimal"
            placeholder={engine.usageUnit}
            disabled={!enabled}
            value={typed.figure}
            onChange={({ target }) => onType({ figure: target.value })}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              nextFigure(event.currentTarget)?.focus();
            }}
          />
        )}
        {lower && <Lower engine={engine} typed={typed} onType={onType} />}
        {odd && (
          <small role="alert">
            {odd.error}{' '}
            <Button variant="plain" onClick={() => onType({ sure: typed.figure })}>
              It is right
            </Button>
            {typeof odd.meant === 'number' && (
              <Button variant="plain" onClick={() => onType({ figure: String(odd.meant) })}>
                {grouped(odd.meant)} is meant
              </Button>
            )}
          </small>
        )}
      </td>
      <td>
        <Input
          aria-label={`${engine.name}, heat cycles in all`}
          maxLength={12}
          inputMode="numeric"
          placeholder={engine.heatCycles > 0 ? `heat: ${engine.heatCycles}` : 'heat cycles'}
          disabled={!enabled}
          value={typed.cycles}
          onChange={({ target }) => onType({ cycles: target.value })}
        />
      </td>
      <td aria-live="polite" aria-atomic="true">
        <span className="spoken">{engine.name}</span>
        {line && 'error' in line && !odd ? (
          <small>{line.error}</small>
        ) : (
          <OnItsWay engineId={engine.id} sent={sent} />
        )}
      </td>
    </tr>
  );
}

/** What became of the figures of an engine: on their way, refused and why, or written down. */
function OnItsWay({ engineId, sent }: { readonly engineId: string; readonly sent: boolean }) {
  const items = useAppSelector(
    (state) => state.outbox.items.filter(({ kind, within }) => kind === METER_FIGURE && within === engineId),
    shallowEqual,
  );
  const waiting = items.filter(({ refused }) => refused === null);
  return (
    <>
      {waiting.map(({ key, said }) => (
        <small key={key}>{said.split(' of ')[0]} waits to be sent</small>
      ))}
      {items.length === 0 && sent && <small>written down</small>}
      <RefusedNotes buildId="" which={({ within }) => within === engineId} />
    </>
  );
}

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
function useMeters(search: string, limit: number) {
  const options = { refetchOnMountOrArgChange: true };
  const all = useEnginesQuery({ limit }, options);
  const found = useEnginesQuery({ search, limit }, { ...options, skip: search === '' });
  const away = found.error && problemFrom(found.error)?.code === 'unreached';
  if (search === '') return { ...rowsOf(all.data), error: all.error, refetch: all.refetch };
  if (!away || !all.data)
    return { ...rowsOf(found.data ?? all.data), error: found.error, refetch: found.refetch };
  const engines = all.data.engines.filter(({ name, serial, owner, place }) =>
    folded([name, serial, owner, place].join(' ')).includes(folded(search.trim())),
  );
  return { engines, total: engines.length, error: undefined, refetch: found.refetch };
}

const rowsOf = (data: EngineList | undefined) => ({ engines: data?.engines ?? [], total: data?.total });

/** The field of the next engine's figure, for who types straight down. */
function nextFigure(from: HTMLElement): HTMLInputElement | undefined {
  const row = from.closest('tr')?.nextElementSibling;
  return row?.querySelector('input') ?? undefined;
}

/** A figure below the last one is asked about: a new meter, or a slip that is put right. */
function Lower({ engine, typed, onType }: Pick<RowProps, 'engine' | 'typed' | 'onType'>) {
  return (
    <div className="usage-lower">
      <label>
        <input
          type="checkbox"
          checked={typed.oldMeter !== null}
          onChange={({ target }) => onType({ oldMeter: target.checked ? '' : null })}
        />{' '}
        A new meter was fitted
      </label>
      {typed.oldMeter !== null ? (
        <Labelled label={`The old one stopped at (last read ${grouped(engine.usage)})`}>
          <Input
            maxLength={12}
            inputMode="decimal"
            value={typed.oldMeter}
            onChange={({ target }) => onType({ oldMeter: target.value })}
          />
        </Labelled>
      ) : (
        <Labelled label="Or why the lower figure is right">
          <Input
            maxLength={200}
            value={typed.reason}
            onChange={({ target }) => onType({ reason: target.value })}
          />
        </Labelled>
      )}
    </div>
  );
}
