import type { NewKnowHow } from '@zero-lash/contract/knowHow';
import { toBuild, withRow, type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    'know-how': { readonly body: NewKnowHow };
  }
}

export const knowHowRows: RowsOfRoom<'know-how'> = { 'know-how': withRow };

export const knowHowWrite: WriteOfRoom<'know-how', 'know-how'> = {
  brings: 'know-how',
  send: (buildId, { body }) => ({
    ...toBuild(buildId, 'know-how'),
    ...{ about: 'what was learned', said: `“${body.text}”`, body },
  }),
  pending: (item, build) => {
    const { stage, text, about = 'stage', crankAngle = null } = item.body as NewKnowHow;
    const row = { id: item.key, stage, text, about, crankAngle, by: item.by, at: item.takenAt };
    return { ...row, sheetId: build.sheet.sheetId, dropped: false, version: 1 };
  },
};
