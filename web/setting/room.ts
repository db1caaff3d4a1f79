import type { NewSetting, SettingTakenBack } from '@zero-lash/contract/setting';
import { toBuild, type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    setting: { readonly body: NewSetting };
    'setting-taken-back': { readonly id: string; readonly point: string; readonly body: SettingTakenBack };
  }
}

export const settingRows: RowsOfRoom<'settings'> = {
  setting: (settings, row) => {
    // that a point was left alone stands beside what was last changed there
    const replaced = (each: typeof row) =>
      each.point === row.point && (each.kind === 'left') === (row.kind === 'left');
    if (!row.superseded) return [...settings.filter((each) => !replaced(each)), row];
    // one that is not shown changes nothing by being taken back
    return settings.some(({ id }) => id === row.id) ? settings.filter(({ id }) => id !== row.id) : settings;
  },
};

export const settingWrite: WriteOfRoom<'setting', 'setting'> = {
  brings: 'setting',
  send: (buildId, { body }) => ({
    ...toBuild(buildId, 'settings'),
    ...{ about: `${body.point} set`, said: `The setting of ${body.point}`, body },
  }),
  pending: (item) => {
    const { point, kind, degrees, installed, fitted, mark, note, from, to, giver, cause } =
      item.body as NewSetting;
    return {
      ...{ id: item.key, point, kind, by: item.by, at: item.takenAt, superseded: false },
      ...{ degrees: degrees ?? null, installed: installed ?? null, fitted: fitted ?? null },
      ...{ mark: mark ?? '', note: note ?? '', from: from ?? 'unsaid', to: to ?? 'unsaid' },
      ...{ giver: giver ?? null, cause: cause ?? 'chosen' },
    };
  },
};

export const settingTakenBack: WriteOfRoom<'setting-taken-back', 'setting'> = {
  brings: 'setting',
  send: (buildId, { id, point, body }) => ({
    ...toBuild(buildId, `settings/${id}/taken-back`),
    within: id,
    ...{ about: `${point} set`, said: `Taking back what was set at ${point}`, body },
  }),
  // what stood before stands again: which that is the server says
  pending: (item, build) => {
    const row = build.settings.find(({ id }) => id === item.within);
    return row ? { ...row, superseded: true } : null;
  },
};
