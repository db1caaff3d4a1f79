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
import { memo, useMemo, type CSSProperties } from 'react';
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

/** Each characteristic in a table of its own, as many beside one another as there is room for: it is measured down its column. */
export function WearGrid({ items, ...rest }: Props) {
  return (
    <div className="wear-tables">
      {items.map((item) => (
        <ItemTable key={item.key} item={item} {...rest} />
      ))}
    </div>
  );
}

/** What is typed of one characteristic and not written yet, by `place field`: all its fields in one look at the state. */
function useTyped(drafts: string): Readonly<Record<string, string>> {
  return useAppSelector(
    (state) =>
      Object.fromEntries(
        Object.entries(state.drafts).flatMap(([key, text]) =>
          key.startsWith(drafts) ? [[key.slice(drafts.length), text]] : [],
        ),
      ),
    shallowEqual,
  );
}

function ItemTable({
  buildId,
  pattern,
  work,
  item,
  set,
  shown,
}: Omit<Props, 'items'> & { readonly item: Characteristic }) {
  const drafts = `${buildId}:wear ${set} ${item.key} `;
  const typed = useTyped(drafts);
  const places = useMemo(() => placesOf(pattern, item), [pattern, item]);
  const columns = useMemo(
    () => ({ '--wear-place': placeWidth(places), '--wear-fields': fieldWidths(item) }) as CSSProperties,
    [places, item],
  );
  // what is typed is held against the sheet as it is by then: no cell is drawn again for what stands elsewhere
  const warning = useStable((where: TypedWhere, figures: readonly number[]) =>
    figureWarning(work.sheet, pattern, where, figures),
  );
  return (
    <section className="wear-item" aria-label={item.title} data-wide={item.fields.length > 1 || undefined}>
      <h4>{item.title}</h4>
      <div className="wear-scroll">
        <div className="wear-grid" role="table" aria-label={item.title} style={columns}>
          <div className="wear-row wear-heads" role="row">
            <div role="columnheader">At</div>
            {item.fields.map((field) => (
              <div key={field.key} role="columnheader">
                {field.label}, {unitShown(field.unit, shown)}
              </div>
            ))}
            <div className="wear-verdict" role="columnheader">
              Result
            </div>
          </div>
          {places.map((place) => (
            <ItemRow
              key={place.key}
              {...{ drafts, pattern, item, place, set, shown, warning }}
              typed={item.fields.map(({ key }) => typed[`${place.key} ${key}`])}
              sheet={work.sheet}
              unsent={work.unsent}
              enabled={work.enabled}
              write={work.write}
              follow={work.follow}
            />
          ))}
        </div>
      </div>
      <details className="wear-how">
        <summary>How it is measured</summary>
        {item.how}
      </details>
    </section>
  );
}

/** px a figure takes, with the room round it; columns have one width each, so that a figure more lays out its own row only. */
const FIGURE = { wide: 52, room: 44, least: 84, most: 3 };

/** Of text, so that it grows with it: a letter of what a place is called, and the room beside it. */
const PLACE = { letter: 0.61, room: 1 };

const placeWidth = (places: readonly WearPlace[]) =>
  `${PLACE.room + PLACE.letter * Math.max(2, ...places.map(({ key }) => key.length))}rem`;

const fieldWidths = ({ fields }: Characteristic) =>
  fields
    .map(
      ({ most }) => `minmax(${FIGURE.least}px, ${FIGURE.room + FIGURE.wide * Math.min(most, FIGURE.most)}px)`,
    )
    .join(' ');

interface RowProps {
  /** where what is typed of this characteristic is kept: what its keys begin with */
  readonly drafts: string;
  /** what is typed and not written yet, field by field */
  readonly typed: readonly (string | undefined)[];
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

const keyOf = ({ set, item, place }: Pick<RowProps, 'set' | 'item' | 'place'>, field: string) =>
  `figure ${set} ${item.key} ${place.key} ${field}`;

/** One characteristic at one place: its fields, and what they come to as they are typed. */
const ItemRow = memo(function ItemRow(props: RowProps) {
  const { drafts, typed, pattern, item, place, set, sheet, unsent, enabled, warning, write, follow, shown } =
    props;
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
    <div className="wear-row" role="row">
      <div className="wear-place" role="rowheader">
        {place.key}
      </div>
      {item.fields.map((field, index) => {
        const current = sheet.current.get(keyOf(props, field.key));
        return (
          <div key={field.key} role="cell">
            <WearCell
              draft={`${drafts}${place.key} ${field.key}`}
              typed={typed[index]}
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
    </div>
  );
}, sameRow);

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
function sameRow(before: RowProps, after: RowProps): boolean {
  return (
    before.typed.every((text, index) => text === after.typed[index]) &&
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
