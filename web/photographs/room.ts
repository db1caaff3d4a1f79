import type { DroppedPhotograph, NewPhotograph } from '@zero-lash/contract/photographs';
import { toBuild, withRow, type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    photograph: { readonly body: NewPhotograph };
    'photograph-dropped': { readonly id: string; readonly body: DroppedPhotograph };
  }
}

export const photographRows: RowsOfRoom<'photographs'> = { photograph: withRow };

export const photographWrite: WriteOfRoom<'photograph', 'photograph'> = {
  brings: 'photograph',
  send: (buildId, { body }) => ({
    ...toBuild(buildId, 'photographs'),
    about: 'a photograph',
    said: body.about === '' ? 'A photograph' : `The photograph of ${body.about}`,
    body,
  }),
  pending: (item) => {
    const { stage, about, note, shows = '' } = item.body as NewPhotograph;
    return {
      ...{ id: item.key, stage, about, note, shows, by: item.by, at: item.takenAt, dropped: false },
      // how large it is kept is the server's to say
      ...{ width: 0, height: 0 },
    };
  },
};

export const photographDropped: WriteOfRoom<'photograph-dropped', 'photograph'> = {
  brings: 'photograph',
  send: (buildId, { id, body }) => ({
    ...toBuild(buildId, `photographs/${id}`),
    ...{ method: 'PUT', within: id },
    ...{ about: 'a photograph', said: 'Whether a photograph is shown', body },
  }),
  pending: (item, build) => {
    const row = build.photographs.find(({ id }) => id === item.within);
    return row ? { ...row, dropped: (item.body as DroppedPhotograph).dropped } : null;
  },
};
