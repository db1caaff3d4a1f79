import type { LengthUnit } from '@zero-lash/core/length';
import { parseEntry, type Reading } from '@zero-lash/core/measuring';

/** What was typed in a line and looks like a slip. */
interface Asked {
  readonly text: string;
  readonly reading: Reading;
  /** mm, of what is far outside the limits */
  readonly lengths: readonly number[];
  readonly meant: readonly Reading[];
}

/** A figure that is to be kept: as it was typed, or as it was meant. */
export interface Given {
  readonly reading: Reading;
  readonly asTyped: string;
  /** it looked like a slip, and is right */
  readonly doubtKept: boolean;
}

/** One line of a column that is typed straight down: its text, what of it was kept, and what is asked in its row. */
export interface ColumnLine {
  readonly text: string;
  /** what was kept last, or left for what stands there, as it was typed: nothing more is done about it */
  readonly done: string | null;
  /** something of this line was kept: what stands there is its own */
  readonly own: boolean;
  readonly complaint: string | undefined;
  readonly asked: Asked | null;
  /** what would take the place of what somebody measured there */
  readonly over: Given | null;
}

/** A line in which nothing was typed yet. */
export const EMPTY_LINE: ColumnLine = {
  text: '',
  done: null,
  own: false,
  complaint: undefined,
  asked: null,
  over: null,
};

/** What is done in a line: with a key, by leaving it, or by an answer to what it asks. */
export type LineEvent =
  | { readonly kind: 'typed'; readonly text: string }
  | { readonly kind: 'enter' }
  /** by Tab, or by a tap elsewhere */
  | { readonly kind: 'left' }
  | { readonly kind: 'use'; readonly meant: Reading }
  | { readonly kind: 'as-typed' }
  | { readonly kind: 'take-over' }
  | { readonly kind: 'leave-over' };

/** What a line is judged by as it is typed. */
export interface LineContext {
  /** of figures that none is said of */
  readonly unit: LengthUnit;
  /** mm, within which nothing is asked; null where there are no limits */
  readonly expected: Parameters<typeof parseEntry>[2];
  /** somebody measured that point, and whoever types may know */
  readonly standsThere: boolean;
  /** why nothing can be kept yet; null where nothing stands against it */
  readonly barred: string | null;
}

/** What became of a line: what is to be written, if anything, and whether the next line comes to hand. */
export interface LineStep {
  readonly line: ColumnLine;
  readonly write: Given | null;
  readonly onward: boolean;
}

/**
 * Goes on with a line of a column: pure, so that whatever is typed, tapped and asked in whichever order is tried.
 *
 * Rule: Enter and leaving a line keep what was typed, and answer no question: a key that was pressed twice says nothing about a slip.
 *
 * @example lineAfter(EMPTY_LINE, { kind: 'typed', text: '0.25' }, context).line.text // '0.25'
 */
export function lineAfter(line: ColumnLine, event: LineEvent, context: LineContext): LineStep {
  const stays = (now: Partial<ColumnLine> = {}): LineStep => ({
    ...{ line: { ...line, ...now }, write: null, onward: false },
  });
  switch (event.kind) {
    case 'typed':
      return stays({ text: event.text, complaint: undefined, asked: null, over: null });
    case 'enter':
    case 'left':
      return ended(line, event.kind === 'enter', context, stays);
    case 'use':
      return line.asked
        ? given(line, { reading: event.meant, asTyped: line.asked.text, doubtKept: false }, context)
        : stays();
    case 'as-typed':
      return line.asked
        ? given(line, { reading: line.asked.reading, asTyped: line.asked.text, doubtKept: true }, context)
        : stays();
    case 'take-over':
      return line.over ? kept(line, line.over) : stays();
    case 'leave-over':
      return line.over ? { ...stays({ over: null, done: line.over.asTyped }), onward: true } : stays();
  }
}

/** What was typed is kept, asked about, or complained of, as the line is ended. */
function ended(
  line: ColumnLine,
  byEnter: boolean,
  context: LineContext,
  stays: (now?: Partial<ColumnLine>) => LineStep,
): LineStep {
  const text = line.text.trim();
  // an empty line, or one that stands as it was kept, is gone past
  if (text === '' || text === line.done) return { ...stays(), onward: byEnter };
  // a question stands until it is answered
  if (line.asked || line.over) return stays();
  if (context.barred !== null) return stays({ complaint: context.barred });
  const entry = parseEntry(text, context.unit, context.expected);
  if ('error' in entry) return stays({ complaint: entry.error });
  const { reading, doubts, meant } = entry;
  if (doubts.length > 0) return stays({ asked: { text, reading, meant, lengths: doubts } });
  const step = given(line, { reading, asTyped: text, doubtKept: false }, context);
  // by a tap the hand is where it went
  return byEnter ? step : { ...step, onward: false };
}

/** Somebody's reading is asked about before paper takes its place. */
function given(line: ColumnLine, figure: Given, { standsThere }: LineContext): LineStep {
  if (standsThere && !line.own)
    return { line: { ...line, asked: null, over: figure }, write: null, onward: false };
  return kept(line, figure);
}

const kept = (line: ColumnLine, figure: Given): LineStep => ({
  line: { ...line, complaint: undefined, asked: null, over: null, done: figure.asTyped, own: true },
  write: figure,
  onward: true,
});
