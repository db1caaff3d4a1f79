import type { BuildRoom, BuildRowChange, ChangeKind } from '@zero-lash/contract/builds';
import type { NewKnowHow } from '@zero-lash/contract/knowHow';
import type { NewConditions, NewReading } from '@zero-lash/contract/measuring';
import type { NewPhotograph } from '@zero-lash/contract/photographs';
import type { NewSetting } from '@zero-lash/contract/setting';
import type { Turning } from '@zero-lash/contract/turning';
import type { OutboxItem } from '../app/deviceStore.ts';
import { readingHere } from '../measuring/readingHere.ts';
import type { BuildView } from './buildView.ts';
import type { BenchWrite } from './benchWrites.ts';
import { lay, ROOM_OF, type RowOf } from './lay.ts';
import { limitedPoints } from './points.ts';

type Kind = BenchWrite['kind'];
/** The kind of row that a kind of write brings. */
type Brings<K extends Kind> = K extends keyof typeof OF_ANOTHER
  ? (typeof OF_ANOTHER)[K]
  : Exclude<K, keyof typeof OF_ANOTHER>;

/** What changes a row that is there already brings that row. */
const OF_ANOTHER = { 'photograph-dropped': 'photograph', 'setting-taken-back': 'setting' } as const;
const bringsOf = (kind: Kind): ChangeKind =>
  (kind in OF_ANOTHER ? OF_ANOTHER[kind as keyof typeof OF_ANOTHER] : kind) as ChangeKind;

const UNSENT_PHOTOGRAPH = { width: 0, height: 0, dropped: false };

/** What one hand wrote at one moment, as it will stand. */
function entryOf<Line>({ key, by, takenAt, body }: OutboxItem) {
  return { id: key, by, at: takenAt, lines: (body as { lines: Line[] }).lines };
}

/** What each kind of write will bring, as this device can tell without the server: the same core judges it there. */
const ROW: { readonly [K in Kind]: (item: OutboxItem, build: BuildView) => RowOf<Brings<K>> | null } = {
  reading: (item, build) => {
    const body = item.body as NewReading;
    const limits = limitedPoints(build.sheet).find(({ key }) => key === body.point);
    const round = build.rounds.find(({ id }) => id === item.within);
    const before = round?.readings.find(({ point }) => point === body.point);
    return limits ? readingHere(item, body, limits, build.sheet.pattern, before) : null;
  },
  conditions: (item) => {
    const { engineTempC, hoursSinceRun, condition = null } = item.body as NewConditions;
    return {
      id: item.key,
      roundId: item.within!,
      engineTempC,
      hoursSinceRun,
      condition,
      by: item.by,
      at: item.takenAt,
    };
  },
  turning: (item) => ({ ...(item.body as Turning), roundId: item.within!, saidAt: item.takenAt }),
  setting: (item) => {
    const { point, kind, degrees, installed, fitted, mark, note, from, to, giver } = item.body as NewSetting;
    return {
      ...{ id: item.key, point, kind, by: item.by, at: item.takenAt, superseded: false },
      ...{ degrees: degrees ?? null, installed: installed ?? null, fitted: fitted ?? null },
      ...{ mark: mark ?? '', note: note ?? '', from: from ?? 'unsaid', to: to ?? 'unsaid' },
      giver: giver ?? null,
    };
  },
  // what stood before stands again: which that is the server says
  'setting-taken-back': (item, build) => {
    const row = build.settings.find(({ id }) => id === item.within);
    return row ? { ...row, superseded: true } : null;
  },
  tick: (item, build) => {
    const { stage, check, done } = item.body as RowOf<'tick'>;
    const before = build.ticks.find((each) => each.stage === stage && each.check === check);
    const earlier = [...(before?.earlier ?? []), ...(before?.done ? [before.at] : [])];
    return { stage, check, done, by: item.by, at: item.takenAt, earlier };
  },
  note: (item) => {
    const { stage, text } = item.body as RowOf<'note'>;
    return { id: item.key, stage, text, by: item.by, at: item.takenAt };
  },
  wear: entryOf,
  headwork: entryOf,
  ledger: entryOf,
  ran: entryOf,
  photograph: (item) => {
    const { stage, about, note, shows = '' } = item.body as NewPhotograph;
    // how large it is kept is the server's to say
    return {
      ...{ id: item.key, stage, about, note, shows, by: item.by, at: item.takenAt },
      ...UNSENT_PHOTOGRAPH,
    };
  },
  'photograph-dropped': (item, build) => {
    const row = build.photographs.find(({ id }) => id === item.within);
    return row ? { ...row, dropped: (item.body as { dropped: boolean }).dropped } : null;
  },
  'know-how': (item, build) => {
    const { stage, text } = item.body as NewKnowHow;
    const row = { id: item.key, stage, text, by: item.by, at: item.takenAt };
    return { ...row, sheetId: build.sheet.sheetId, dropped: false, version: 1 };
  },
  round: (item) => ({
    // a recheck's round has the recheck's own id, whoever opens it
    ...{ id: item.within!, recheckId: item.within!, kind: 'recheck', closedAt: null, carried: false },
    ...{ number: (item.body as { sequence: number }).sequence, openedAt: item.takenAt, openedBy: item.by },
  }),
};

/** A build with what is on its way to the server laid over it, in the order it was done. */
export function withItsWay(build: BuildView, items: readonly OutboxItem[]): BuildView {
  return items
    .filter((item) => item.buildId === build.id && item.refused === null)
    .reduce((view, item) => {
      const kind = item.kind as Kind;
      const row = ROW[kind]?.(item, view);
      if (!row) return view;
      const brings = bringsOf(kind);
      const room = ROOM_OF[brings] as Exclude<BuildRoom, 'head'>;
      // a round that was opened here and is there already is the server's own
      if (kind === 'round' && view.rounds.some(({ recheckId }) => recheckId === item.within)) return view;
      return { ...view, [room]: lay(view[room] as never, { kind: brings, row } as BuildRowChange) };
    }, build);
}
