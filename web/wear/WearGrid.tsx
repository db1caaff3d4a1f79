import {
  figureWarning,
  parseFigures,
  placesOf,
  wearAt,
  withLines,
  type Characteristic,
  type FigureLine,
  type TypedWhere,
  type WearWarning,
  type WearPlace,
  type WearSheet,
} from '@zero-lash/core/wear';
import type { Pattern } from '@zero-lash/core/sheets';
import { memo, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { figureShown, unitShown, type ShownIn } from '@zero-lash/core/length';
import { useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { CYLINDER_WORDS, GradeMark } from '../drawings/GradeMark.tsx';
import type { WearWork } from './useWear.ts';
import { WearCell } from './WearCell.tsx';
import './wear.css';

interface Props {
  readonly buildId: string;
  readonly pattern: Pattern;
  readonly work: WearWork;
  readonly items: readonly Characteristic[];
  /** figures of what was found, or of what is fitted in its place */
  readonly set: FigureLine['set'];
  /** what figures are shown in, and bare ones typed in */
  readonly shown: ShownIn;
}

const draftOf = (buildId: string, set: string, item: string, place: string, field: string) =>
  `${buildId}:wear ${set} ${item} ${place} ${field}`;

/** Characteristics measured at the same kind of place, side by side: a row a place, in head order. */
export function WearGrid({ buildId, pattern, work, items, set, shown }: Props) {
  const places = placesOf(pattern, items[0]!);
  const columns = useMemo(() => ({ gridTemplateColumns: columnsOf(items) }), [items]);
  // what is typed is held against the sheet as it is by then: no cell is drawn again for what stands elsewhere
  const warning = useStable((where: TypedWhere, typed: readonly number[]) =>
    figureWarning(work.sheet, pattern, where, typed),
  );
  return (
    <div className="wear-scroll">
      <div className="wear-grid" role="table" aria-label={items.map(({ title }) => title).join(', ')}>
        <div className="wear-row wear-heads" role="row" style={columns}>
          <div className="wear-place" role="columnheader">
            At
          </div>
          {items.map((item) => (
            <Heads key={item.key} item={item} shown={shown} />
          ))}
        </div>
        {places.map((place) => (
          <div key={place.key} className="wear-row" role="row" style={columns}>
            <div className="wear-place" role="rowheader">
              {place.key}
            </div>
            {items.map((item) => (
              <ItemCells
                key={item.key}
                {...{ buildId, pattern, item, place, set, shown }}
                sheet={work.sheet}
                unsent={work.unsent}
                enabled={work.enabled}
                warning={warning}
                write={work.write}
                follow={work.follow}
              />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

/** Columns have one width each, whatever stands in them: so a figure more lays out its own row only. */
const WIDTHS = { place: 66, many: 124, one: 96, first: 14, verdict: 168 };

function columnsOf(items: readonly Characteristic[]): string {
  const widths = items.flatMap(({ fields }) => [
    ...fields.map(
      ({ most }, index) => (most > 1 ? WIDTHS.many : WIDTHS.one) + (index === 0 ? WIDTHS.first : 0),
    ),
    WIDTHS.verdict,
  ]);
  return [WIDTHS.place, ...widths].map((width) => `${width}px`).join(' ');
}

function Heads({ item, shown }: { readonly item: Characteristic; readonly shown: ShownIn }) {
  return (
    <>
      {item.fields.map((field, index) => (
        <div key={field.key} role="columnheader" className={index === 0 ? 'wear-first' : undefined}>
          {index === 0 && <b>{item.title}</b>}
          {field.label}, {unitShown(field.unit, shown)}
        </div>
      ))}
      <div role="columnheader">result</div>
    </>
  );
}

interface ItemProps {
  readonly buildId: string;
  readonly pattern: Pattern;
  readonly item: Characteristic;
  readonly place: WearPlace;
  readonly set: FigureLine['set'];
  readonly sheet: WearSheet;
  readonly shown: ShownIn;
  readonly unsent: ReadonlySet<string>;
  readonly enabled: boolean;
  readonly warning: (where: TypedWhere, typed: readonly number[]) => WearWarning | null;
  readonly write: WearWork['write'];
  readonly follow: WearWork['follow'];
}

const keyOf = ({ set, item, place }: Pick<ItemProps, 'set' | 'item' | 'place'>, field: string) =>
  `figure ${set} ${item.key} ${place.key} ${field}`;

/** One characteristic at one place: its fields, and what they come to as they are typed. */
const ItemCells = memo(function ItemCells(props: ItemProps) {
  const { buildId, pattern, item, place, set, sheet, unsent, enabled, warning, write, follow, shown } = props;
  const typed = useAppSelector(
    (state) => item.fields.map(({ key }) => state.drafts[draftOf(buildId, set, item.key, place.key, key)]),
    shallowEqual,
  );
  const seen = useMemo(() => {
    const lines = typed.flatMap((text, index): FigureLine[] => {
      const field = item.fields[index]!;
      const read = text === undefined ? null : parseFigures(text, field, shown);
      if (!read || 'error' in read) return [];
      return [figureLine(item, place, field.key, set, { ...read, asTyped: text!, doubtKept: false })];
    });
    return wearAt(lines.length === 0 ? sheet : withLines(sheet, lines), pattern, item, place);
  }, [typed, sheet, pattern, item, place, set, shown]);
  return (
    <>
      {item.fields.map((field, index) => {
        const current = sheet.current.get(keyOf(props, field.key));
        return (
          <div key={field.key} role="cell" className={index === 0 ? 'wear-first' : undefined}>
            <WearCell
              draft={draftOf(buildId, set, item.key, place.key, field.key)}
              label={`${item.title} ${place.key}, ${field.label}${set === 'fitted' ? ', fitted' : ''}`}
              field={field}
              shown={shown}
              current={current}
              waits={current !== undefined && unsent.has(current.id)}
              enabled={enabled}
              warning={(typedHere) => warning({ set, item, field, place }, typedHere)}
              column={`${item.key} ${field.key}`}
              follow={follow}
              onWrite={(said) =>
                write(`${item.title} ${place.key}`, [figureLine(item, place, field.key, set, said)])
              }
            />
          </div>
        );
      })}
      <div role="cell" className="wear-verdict" aria-live="polite">
        {seen && (
          <>
            {seen.isImpossible && <span className="wear-note">cannot be: look at the figures again</span>}
            {(seen.verdict !== null || seen.missing.length > 0) && (
              <GradeMark grade={seen.verdict} words={item.page === 'pressure' ? CYLINDER_WORDS : undefined} />
            )}
            {seen.used !== null && (
              <span className="wear-note"> {Math.max(0, Math.round(seen.used * 100))} %</span>
            )}
            {seen.by !== 'figures' && (
              <span className="wear-note">{seen.by === 'gauge' ? ' by gauge' : ' by eye'}</span>
            )}
            <div className="wear-note">
              {seen.derived
                .map(
                  ({ label, value, unit }) =>
                    `${label} ${figureShown(value, unit, shown)}${unit === 'mm' ? '' : ` ${unitShown(unit, shown)}`}`,
                )
                .join(' · ')}
            </div>
          </>
        )}
      </div>
    </>
  );
}, sameCells);

function figureLine(
  item: Characteristic,
  place: WearPlace,
  field: string,
  set: FigureLine['set'],
  said: Pick<FigureLine, 'how' | 'values' | 'asTyped' | 'doubtKept'>,
): FigureLine {
  return { kind: 'figure', item: item.key, place: place.key, field, set, ...said };
}

/** A figure elsewhere changes nothing here, but for compressions, which are graded beside one another. */
function sameCells(before: ItemProps, after: ItemProps): boolean {
  return (
    before.enabled === after.enabled &&
    before.set === after.set &&
    before.shown === after.shown &&
    before.item === after.item &&
    before.place.key === after.place.key &&
    (before.sheet === after.sheet ||
      (after.item.key !== 'compression' && before.sheet.limits.length === after.sheet.limits.length)) &&
    (['found', 'fitted'] as const).every((set) =>
      after.item.fields.every(({ key }) => {
        const name = keyOf({ ...after, set }, key);
        const [old, now] = [before.sheet.current.get(name), after.sheet.current.get(name)];
        return (
          old?.line === now?.line &&
          (old !== undefined && before.unsent.has(old.id)) === (now !== undefined && after.unsent.has(now.id))
        );
      }),
    )
  );
}
