import type { NoteRequest, TickRequest } from '@zero-lash/contract/builds';
import { checkInWords } from '@zero-lash/core/builds';
import { toBuild, withRow, type RowsOfRoom, type WriteOfRoom } from './rooms.ts';

declare module './rooms.ts' {
  interface BenchWrites {
    tick: { readonly body: TickRequest };
    note: { readonly body: NoteRequest };
  }
}

export const headRows: RowsOfRoom<'head'> = { head: (_, row) => row };

export const tickRows: RowsOfRoom<'ticks'> = {
  tick: (ticks, row) => [
    ...ticks.filter(({ stage, check }) => stage !== row.stage || check !== row.check),
    row,
  ],
};

export const noteRows: RowsOfRoom<'notes'> = { note: withRow };

const CHECK_WORDS = 24;
const shortened = (text: string) => (text.length > CHECK_WORDS ? `${text.slice(0, CHECK_WORDS)}…` : text);

export const tickWrite: WriteOfRoom<'tick', 'tick'> = {
  brings: 'tick',
  send: (buildId, { body }) => {
    const text = checkInWords(body.stage, body.check);
    return {
      ...toBuild(buildId, 'ticks'),
      ...{ about: `“${shortened(text)}”`, said: `The tick of “${text}”`, body },
    };
  },
  pending: (item, build) => {
    const { stage, check, done } = item.body as TickRequest;
    const before = build.ticks.find((each) => each.stage === stage && each.check === check);
    const earlier = [...(before?.earlier ?? []), ...(before?.done ? [before.at] : [])];
    const earlierBy = [...(before?.earlierBy ?? []), ...(before?.done ? [before.by] : [])];
    return { stage, check, done, by: item.by, at: item.takenAt, earlier, earlierBy };
  },
};

export const noteWrite: WriteOfRoom<'note', 'note'> = {
  brings: 'note',
  send: (buildId, { body }) => ({
    ...toBuild(buildId, 'notes'),
    ...{ about: 'a note', said: `“${body.text}”`, body },
  }),
  pending: (item) => {
    const { stage, text } = item.body as NoteRequest;
    return { id: item.key, stage, text, by: item.by, at: item.takenAt };
  },
};
