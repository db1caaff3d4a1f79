import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { UsageLine, UsageRoundTaken } from '@zero-lash/contract/usage';
import { runningDoubt } from '@zero-lash/core/rechecks';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayInWords } from '../app/dates.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { Labelled } from '../app/Labelled.tsx';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useEnginesQuery } from '../engines/endpoints.ts';
import { useRole } from '../people/useRole.ts';
import { useShopTimes } from '../people/useShopTimes.ts';
import { useLogRoundMutation } from './endpoints.ts';
import { FromMeters } from './FromMeters.tsx';
import { UsageFile } from './UsageFile.tsx';
import './usage.css';

/** What was typed for one engine, before it is written down. */
interface Typed {
  readonly figure: string;
  readonly cycles: string;
  /** why a lower figure is right */
  readonly reason: string;
  /** what the old meter stopped at, where this is the first of a new one */
  readonly oldMeter: string | null;
}

const NOTHING: Typed = { figure: '', cycles: '', reason: '', oldMeter: null };
const PAGE = 100;

/** The usage log: every engine in one list, its meter typed straight down; from a file, or from a feed. */
export default function UsagePage() {
  const { mayWork } = useRole();
  const times = useShopTimes();
  const [search, setSearch] = useState('');
  const [shown, setShown] = useState(PAGE);
  const [day, setDay] = useState('');
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>({});
  const [answers, setAnswers] = useState<UsageRoundTaken['lines']>([]);
  const { data, error, refetch } = useEnginesQuery(
    { search, limit: Math.min(500, shown) },
    { refetchOnMountOrArgChange: true },
  );
  const [log, logging] = useLogRoundMutation();
  const engines = data?.engines ?? [];
  const set = (id: string, change: Partial<Typed>) =>
    setTyped((all) => ({ ...all, [id]: { ...(all[id] ?? NOTHING), ...change } }));
  const lines = engines.flatMap((engine) => {
    const line = lineOf(engine, typed[engine.id] ?? NOTHING, day || null);
    return line === null ? [] : [{ engine, line }];
  });
  const bad = lines.filter(({ line }) => 'error' in line);
  async function send() {
    const answer = await log({
      lines: lines.map(({ line }) => line as UsageLine),
    });
    if (!('data' in answer) || !answer.data) return;
    setAnswers(answer.data.lines);
    // what was refused is still there to be put right
    const taken = new Set(
      answer.data.lines.filter(({ state }) => state !== 'refused').map(({ engineId }) => engineId),
    );
    setTyped((all) => Object.fromEntries(Object.entries(all).filter(([id]) => !taken.has(id))));
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
          <Button
            variant="solid"
            disabled={lines.length === 0 || bad.length > 0}
            loading={logging.isLoading}
            onClick={() => void send()}
          >
            Write down {lines.length > 0 ? lines.length : ''}
          </Button>
        )}
      </Flex>
      <ProblemNote error={logging.error} />
      {data && engines.length === 0 && <Empty>No engine fits.</Empty>}
      <table className="usage">
        <thead>
          <tr>
            <th scope="col">Engine</th>
            <th scope="col">Last read</th>
            <th scope="col">Now</th>
            <th scope="col">Heat cycles in all</th>
            <th scope="col">What came of it</th>
          </tr>
        </thead>
        <tbody>
          {engines.map((engine) => (
            <UsageRow
              key={engine.id}
              engine={engine}
              typed={typed[engine.id] ?? NOTHING}
              today={day || times.today()}
              enabled={mayWork}
              answer={answers.find(({ engineId }) => engineId === engine.id)}
              onType={(change) => set(engine.id, change)}
            />
          ))}
        </tbody>
      </table>
      {data && data.total > engines.length && (
        <Button variant="plain" onClick={() => setShown((before) => before + PAGE)}>
          {data.total - engines.length} more
        </Button>
      )}
    </Page>
  );
}

/** What is written down of an engine: nothing, a line, or what is wrong with what was typed. */
function lineOf(
  engine: EngineRow,
  { figure, cycles, reason, oldMeter }: Typed,
  day: string | null,
): UsageLine | { readonly error: string } | null {
  if (figure.trim() === '' && cycles.trim() === '') return null;
  const usage = figure.trim() === '' ? engine.usage : runningTyped(figure);
  if (Number.isNaN(usage) || usage < 0) return { error: 'A number, as the meter shows it.' };
  const heatCycles = cycles.trim() === '' ? null : Number(cycles);
  if (heatCycles !== null && (!Number.isInteger(heatCycles) || heatCycles < 0))
    return { error: 'A whole number of heat cycles.' };
  const lastOfOld = oldMeter === null ? null : runningTyped(oldMeter);
  if (lastOfOld !== null && !(lastOfOld >= engine.usage))
    return { error: `The old meter stopped at ${engine.usage} or above.` };
  if (day === null && usage < engine.usage && lastOfOld === null && reason.trim() === '')
    return { error: 'Lower than it was: is it a new meter, or was there a slip?' };
  return {
    ...{ engineId: engine.id, usage, day, heatCycles, reason: reason.trim() },
    newMeter: lastOfOld === null ? null : { lastOfOld, startedAt: Math.min(0, usage) },
  };
}

interface RowProps {
  readonly engine: EngineRow;
  readonly typed: Typed;
  readonly today: string;
  readonly enabled: boolean;
  readonly answer: UsageRoundTaken['lines'][number] | undefined;
  readonly onType: (change: Partial<Typed>) => void;
}

function UsageRow({ engine, typed, today, enabled, answer, onType }: RowProps) {
  const line = lineOf(engine, typed, null);
  const usage = runningTyped(typed.figure);
  const lower = !Number.isNaN(usage) && usage < engine.usage;
  const doubt =
    Number.isNaN(usage) || lower
      ? null
      : runningDoubt(usage, { usage: engine.usage, on: engine.usageOn }, today, engine.usageUnit);
  return (
    <tr>
      <th scope="row">
        <Link to={`/engines/${engine.id}`}>{engine.name}</Link>
        <small>{[engine.owner, engine.place].filter(Boolean).join(' · ')}</small>
      </th>
      <td>
        {grouped(engine.usage)} {engine.usageUnit}
        <small>{dayInWords(engine.usageOn)}</small>
      </td>
      <td>
        <Input
          aria-label={`${engine.name}, now in ${engine.usageUnit}`}
          inputMode="decimal"
          disabled={!enabled}
          value={typed.figure}
          onChange={({ target }) => onType({ figure: target.value })}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            nextFigure(event.currentTarget)?.focus();
          }}
        />
        {lower && <Lower engine={engine} typed={typed} onType={onType} />}
        {doubt && (
          <small role="alert">
            Far above {grouped(engine.usage)}
            {doubt.meant !== null && (
              <>
                {': '}
                <Button variant="plain" onClick={() => onType({ figure: String(doubt.meant) })}>
                  is {grouped(doubt.meant)} meant?
                </Button>
              </>
            )}
          </small>
        )}
      </td>
      <td>
        <Input
          aria-label={`${engine.name}, heat cycles in all`}
          inputMode="numeric"
          placeholder={engine.heatCycles > 0 ? `heat: ${engine.heatCycles}` : 'heat cycles'}
          disabled={!enabled}
          value={typed.cycles}
          onChange={({ target }) => onType({ cycles: target.value })}
        />
      </td>
      <td aria-live="polite">
        {line && 'error' in line ? (
          <small>{line.error}</small>
        ) : (
          answer && <small>{answer.state === 'taken' ? 'written down' : answer.detail}</small>
        )}
      </td>
    </tr>
  );
}

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
          onChange={({ target }) => onType({ oldMeter: target.checked ? String(engine.usage) : null })}
        />{' '}
        A new meter was fitted
      </label>
      {typed.oldMeter !== null ? (
        <Labelled label="The old one stopped at">
          <Input
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
