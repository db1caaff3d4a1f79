import type { CurrentLine } from '@zero-lash/core/builds';
import {
  parseFigures,
  type FigureLine,
  type WearWarning,
  type WearField,
  type WearLine,
} from '@zero-lash/core/wear';
import { useRef, useState, type KeyboardEvent } from 'react';
import { figureShown, type ShownIn } from '@zero-lash/core/length';
import { Question } from '../app/Question.tsx';
import { useStore } from 'react-redux';
import { useAppDispatch, type RootState } from '../app/store.ts';
import { draftTyped } from '../app/drafts.ts';
import { warningInWords, fieldText } from './words.ts';

interface Props {
  /** where what is typed and not written yet is kept */
  readonly draft: string;
  /** what is typed and not written yet */
  readonly typed: string | undefined;
  readonly label: string;
  readonly field: WearField;
  /** what figures are shown in, and bare ones typed in */
  readonly shown: ShownIn;
  readonly current: CurrentLine<WearLine> | undefined;
  /** not sent yet */
  readonly waits: boolean;
  readonly enabled: boolean;
  /** why what is typed looks like a slip */
  readonly warning: (typed: readonly number[]) => WearWarning | null;
  /** which column it stands in, so that a key goes straight down it */
  readonly column: string;
  readonly follow: (work: () => void) => void;
  readonly onWrite: (line: Pick<FigureLine, 'how' | 'values' | 'asTyped' | 'doubtKept'>) => void;
}

/** One field of a wear sheet: typed, asked about where it looks like a slip, written when it is left or Enter goes on down. */
export function WearCell(props: Props) {
  const {
    draft,
    typed,
    label,
    field,
    shown: shownIn,
    current,
    waits,
    enabled,
    warning: warningOf,
    column,
    follow,
    onWrite,
  } = props;
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const [asked, setAsked] = useState<WearWarning | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  // what is written in a moment is not written twice, however the field is left
  const written = useRef<string | null>(null);
  const line = current?.line.kind === 'figure' ? current.line : undefined;
  const shown = fieldText(line, field.unit, shownIn);
  const text = typed ?? shown;

  const type = (next: string) => {
    setComplaint(null);
    setAsked(null);
    // a blank that takes a figure back is typed, too
    dispatch(draftTyped({ key: draft, text: next === '' && shown !== '' ? ' ' : next }));
  };

  /** Writes what is typed; false where it is asked about or not understood first. */
  function commit(doubtKept = false, meant?: string): boolean {
    // as it stands this moment: Enter writes and goes on, and going on leaves the field once more
    const left = store.getState().drafts[draft];
    const said = meant ?? left;
    if (said === undefined || said === written.current) return true;
    if (said.trim() === shown) {
      dispatch(draftTyped({ key: draft, text: '' }));
      return true;
    }
    const read = parseFigures(said, field, shownIn);
    if ('error' in read) {
      setComplaint(read.error);
      return false;
    }
    const warning = doubtKept || read.how !== 'measured' ? null : warningOf(read.values);
    if (warning) {
      setAsked(warning);
      return false;
    }
    // what it comes to is drawn already: the next field is gone to first, and writing follows
    written.current = said;
    follow(() => {
      written.current = null;
      onWrite({ how: read.how, values: read.values, asTyped: said.trim().slice(0, 80), doubtKept });
      dispatch(draftTyped({ key: draft, text: '' }));
    });
    setAsked(null);
    setComplaint(null);
    return true;
  }

  function accept(warning: WearWarning) {
    const meant = text
      .trim()
      .split(/[\s;]+/)
      .map((token) => {
        const read = parseFigures(token, field, shownIn);
        const is = 'values' in read && read.values[0] === warning.value;
        return is ? figureShown(warning.suggestion!, field.unit, shownIn) : token;
      })
      .join(' ');
    commit(false, meant);
  }

  function onKey(event: KeyboardEvent<HTMLInputElement>) {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
    if (step === 0) {
      if (event.key === 'Escape') type(shown);
      return;
    }
    event.preventDefault();
    if (commit()) go(event.currentTarget, column, step);
  }

  return (
    <>
      <input
        className="wear-cell"
        aria-label={label}
        aria-invalid={complaint !== null || undefined}
        data-column={column}
        data-unsent={waits || undefined}
        value={text === ' ' ? '' : text}
        disabled={!enabled}
        autoComplete="off"
        enterKeyHint="next"
        onChange={({ target }) => type(target.value)}
        onKeyDown={onKey}
        onBlur={() => commit()}
      />
      {complaint && (
        <div className="wear-note" role="alert" style={{ color: 'var(--zl-colors-tight)' }}>
          {complaint}
        </div>
      )}
      {asked && (
        <Question
          answers={[
            { label: 'Keep as typed', onChoose: () => commit(true) },
            ...(asked.suggestion === null
              ? []
              : [
                  {
                    label: `Use ${figureShown(asked.suggestion, field.unit, shownIn)}`,
                    onChoose: () => accept(asked),
                  },
                ]),
          ]}
          takesFocus
        >
          {warningInWords(asked, field.unit, shownIn)}
        </Question>
      )}
      {current?.before && current.before.by !== current.by && line && (
        <Before current={current} field={field} shown={shownIn} />
      )}
    </>
  );
}

/** Goes straight down a column, or up. */
function go(from: HTMLInputElement, column: string, step: number): void {
  const cells =
    from.closest('[role="table"]')?.querySelectorAll<HTMLInputElement>('input[data-column]') ?? [];
  const own = [...cells].filter((cell) => cell.dataset['column'] === column);
  own[own.indexOf(from) + step]?.focus();
}

/** What another hand had written in a field before: neither is lost. */
function Before({
  current,
  field,
  shown,
}: Pick<Props, 'field' | 'shown'> & { readonly current: CurrentLine<WearLine> }) {
  const before = current.before!;
  if (before.line.kind !== 'figure') return null;
  const was = fieldText(before.line, field.unit, shown);
  return was === '' ? null : (
    <div className="wear-note">
      {was} by {before.by} before
    </div>
  );
}
