import { Button, Input } from '@chakra-ui/react';
import type { EngineRow } from '@zero-lash/contract/engines';
import { hasMeter, runningInWords } from '@zero-lash/core/rechecks';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { shallowEqual } from 'react-redux';
import { Link } from 'react-router';
import { dayInWords } from '../app/dates.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { Labelled } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useAppSelector } from '../app/store.ts';
import { usePrinting } from '../app/usePrinting.ts';
import { METER_FIGURE } from './endpoints.ts';
import { figureOf, NOTHING, type Typed } from './figures.ts';

interface Props {
  readonly engines: readonly EngineRow[];
  /** what is typed and not written down yet, by engine */
  readonly typed: Readonly<Record<string, Typed>>;
  readonly day: string | null;
  readonly today: string;
  readonly enabled: boolean;
  /** engines of which a figure was written down here */
  readonly sent: ReadonlySet<string>;
  readonly onType: (id: string, change: Partial<Typed>) => void;
  /** the end of what is here comes into sight */
  readonly onMore: () => void;
}

/** px: of a row nobody has seen yet, and of the page before it is measured. */
const ROW = 61;
const SHEET = { width: 1280, height: 800 };
/** Rows that are made beyond those in sight: the next field is there before it is gone to. */
const BEYOND = 8;

const sheet = () => document.querySelector<HTMLElement>('#sheet');

/** The list of meters: a row is made as it comes into sight, however many there are; on paper all that are here. */
export function UsageTable(props: Props) {
  const { engines, typed, day, today, enabled, sent, onType, onMore } = props;
  const body = useRef<HTMLTableSectionElement>(null);
  const [above, setAbove] = useState(0);
  // by the engine: the list may come in anew under who types
  const [typedIn, setTypedIn] = useState<string | null>(null);
  const typedAt = typedIn === null ? -1 : engines.findIndex(({ id }) => id === typedIn);
  const printing = usePrinting();
  const virtual = useVirtualizer({
    count: engines.length,
    getScrollElement: sheet,
    getItemKey: (index) => engines[index]!.id,
    estimateSize: () => ROW,
    overscan: BEYOND,
    initialRect: SHEET,
    scrollMargin: above,
    // a field that is typed into stays, wherever the list is scrolled to
    rangeExtractor: (range) => {
      const inSight = defaultRangeExtractor(range);
      return typedAt === -1 || inSight.includes(typedAt)
        ? inSight
        : [typedAt, ...inSight].sort((a, b) => a - b);
    },
  });
  // what stands above the list comes and goes
  useLayoutEffect(() => {
    const scrolled = sheet();
    if (!scrolled || !body.current) return;
    const top =
      body.current.getBoundingClientRect().top - scrolled.getBoundingClientRect().top + scrolled.scrollTop;
    if (Math.abs(top - above) > 1) setAbove(top);
  });
  const rows = printing
    ? engines.map((_, index) => ({ index, start: 0, end: 0 }))
    : virtual
        .getVirtualItems()
        .map(({ index, start, end }) => ({ index, start: start - above, end: end - above }));
  const last = rows.at(-1);
  const isEnd = last !== undefined && last.index >= engines.length - 1 - BEYOND;
  useEffect(() => {
    if (isEnd) onMore();
  }, [isEnd, engines.length, onMore]);
  return (
    <table className="usage" aria-rowcount={engines.length + 1}>
      <thead>
        <tr aria-rowindex={1}>
          <th scope="col">Engine</th>
          <th scope="col">Last read</th>
          <th scope="col">Now</th>
          <th scope="col">Heat cycles in all</th>
          <th scope="col">Result</th>
        </tr>
      </thead>
      <tbody
        ref={body}
        onFocus={({ target }) => {
          const index = Number(target.closest('tr')?.dataset['index']);
          setTypedIn(engines[index]?.id ?? null);
        }}
        onBlur={() => setTypedIn(null)}
      >
        {rows.flatMap(({ index, start }, place) => {
          const engine = engines[index]!;
          const before = place === 0 ? 0 : rows[place - 1]!.end;
          return [
            start > before && !printing && <Gap key={`before ${engine.id}`} height={start - before} />,
            <UsageRow
              key={engine.id}
              {...{ index, engine, day, today, enabled, onType }}
              typed={typed[engine.id] ?? NOTHING}
              sent={sent.has(engine.id)}
              measure={virtual.measureElement}
            />,
          ];
        })}
        {last && !printing && <Gap height={virtual.getTotalSize() - last.end} />}
      </tbody>
    </table>
  );
}

/** The room of rows that are not in sight. */
function Gap({ height }: { readonly height: number }) {
  return height > 0 ? <tr aria-hidden="true" style={{ height }} /> : null;
}

interface RowProps {
  /** its place in the list */
  readonly index: number;
  readonly engine: EngineRow;
  readonly typed: Typed;
  /** the day it was read on; null for today */
  readonly day: string | null;
  readonly today: string;
  readonly enabled: boolean;
  /** a figure of it was written down here */
  readonly sent: boolean;
  readonly onType: (id: string, change: Partial<Typed>) => void;
  /** told of its element, whose height says where the next ones are */
  readonly measure: (row: Element | null) => void;
}

const UsageRow = memo(function UsageRow(props: RowProps) {
  const { index, engine, typed, day, today, enabled, sent, measure } = props;
  const onType = (change: Partial<Typed>) => props.onType(engine.id, change);
  const line = figureOf(engine, typed, day, today);
  const usage = runningTyped(typed.figure);
  const metered = hasMeter(engine.usageUnit);
  const lower = !Number.isNaN(usage) && usage < engine.usage;
  const odd = line && 'error' in line && line.meant !== undefined ? line : null;
  return (
    <tr ref={measure} data-index={index} aria-rowindex={index + 2}>
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
});

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

/** The field of the next engine's figure, for who types straight down. */
function nextFigure(from: HTMLElement): HTMLInputElement | undefined {
  const row = from.closest('tr')?.nextElementSibling;
  return row?.querySelector('input') ?? undefined;
}

/** A figure below the last one is asked about: a new meter, or a slip that is put right. */
function Lower({
  engine,
  typed,
  onType,
}: Pick<RowProps, 'engine' | 'typed'> & { readonly onType: (change: Partial<Typed>) => void }) {
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
