import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, configure, fireEvent, render } from '@testing-library/react';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import type { Session } from '@zero-lash/contract/people';
import type { Means, Pattern } from '@zero-lash/core/sheets';
import { type ReactElement } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, vi } from 'vitest';
import { inlineSix } from '../../core/test/patterns.ts';
import { api } from '../app/api.ts';
import { draftTyped } from '../app/drafts.ts';
import { outboxRead } from '../app/outbox.ts';
import { store } from '../app/store.ts';
import { system } from '../app/theme.ts';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import type { BuildView } from '../builds/buildView.ts';
import { sessionApi } from '../app/session.ts';
import '../start/rooms.ts';

export const signIn = (role: Session['person']['role'], id = 'tobin') =>
  store.dispatch(
    sessionApi.util.upsertQueryData('session', undefined, {
      person: { id, name: 'Tobin Hask', role, active: true, email: '', version: 1 },
      shop: {
        name: 'Overmere',
        unit: 'mm',
        zone: 'UTC',
        gaugesOnNetwork: false,
        provesAgain: 'disturbed',
        lockedStands: false,
        coldHours: 6,
        allowOver: [],
        singleRule: null,
        ...{ quietFrom: '19:00', quietTo: '07:00', remindDays: 14, meterFeed: '', address: '' },
        version: 1,
      },
      soleLead: false,
    }),
  );

/** A planned recheck with nothing special about it. */
export const plannedRecheck: PastRecheck = {
  ...{ id: 'rc', buildId: 'b', sequence: 1, dueUsage: 150, dueDate: '2031-03-01', dueCycles: null },
  ...{ status: 'planned', outcome: null, doneAt: null, doneBy: null, state: 'due', season: '' },
  ...{ planUsage: 150, planDate: '2031-03-01', byForecast: false, onHold: false, benchDay: null },
  ...{ expectedDay: '2031-02-20', earliestDay: '2031-02-10', latestDay: '2031-03-01', forecast: null },
  ...{ changes: [], version: 1, seasonFrom: null, seasonUntil: null, points: null, late: false },
};

export const at = '2031-01-01T10:00:00Z';
export const reading = (
  point: string,
  lo: number,
  hi: number,
  verdict: ReadingRow['verdict'],
): ReadingRow => ({
  ...{
    id: `g-${point}`,
    roundId: 'r',
    point,
    lo,
    hi,
    verdict,
    onLimit: false,
    floor: lo > 0,
    narrowBlade: false,
    asTyped: `${lo} ${hi}`,
  },
  ...{ reading: { kind: 'bracket', go: lo, noGo: hi }, doubtKept: false, crankAngle: null, offBase: false },
  limits: { min: 0.1, max: 0.2, allowOver: 0 },
  ...{
    instrument: null,
    takenAt: at,
    blind: false,
    beforeLock: false,
    firstLook: null,
    by: 'Osk Velland',
    at,
    supersedes: null,
  },
  ...{ reason: '', superseded: false, earlier: 0, crosses: null, crossed: null },
});
export const round = (change: Partial<Round> = {}): Round => ({
  ...{
    id: 'r',
    kind: 'as-found',
    number: 1,
    recheckId: null,
    carried: false,
    openedAt: at,
    openedBy: 'Osk Velland',
  },
  ...{ closedAt: null, turning: { school: 'fewest', at: null, done: [] }, conditions: [], readings: [] },
  ...change,
});
export const SCREW: Means = {
  ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: 20 },
};
export function build(change: Partial<BuildView> = {}, means: Means = inlineSix.means): BuildView {
  const pattern: Pattern = { ...inlineSix, means };
  return {
    ...{ id: 'b', number: 1, job: 'rebuild', stage: 'set', complaint: 'ticks', aim: 'middle', version: 3 },
    ...{
      openedAt: at,
      openedBy: 'Osk Velland',
      closedAt: null,
      revisionId: 's',
      signOff: null,
      late: [],
      carried: null,
      abandoned: null,
      provesAgain: 'disturbed',
      lockedStands: false,
      coldHours: 6,
      allowOver: [],
      singleRule: null,
      setCold: null,
      ownAims: null,
      lastChecked: null,
    },
    engine: { id: 'e', name: 'Frost fan 7', usageUnit: 'hours', usage: 100, running: 100, heatCycles: 0 },
    sheet: {
      pattern,
      ...{ condition: 'cold', temperature: null, setCold: null, coldHours: 6 },
      ...{ sheetId: 'sh', wearLimits: [], torques: [], wanted: [] },
      limits: [
        { role: 'intake', min: 0.21, max: 0.29, asWritten: '' },
        { role: 'exhaust', min: 0.31, max: 0.39, asWritten: '' },
      ],
    } as unknown as BuildView['sheet'],
    rounds: [round()],
    ...{ settings: [], ticks: [], notes: [], rechecks: [] },
    ...{ wear: [], headwork: [], ledger: [], ran: [], photographs: [], 'know-how': [], 'pattern-parts': [] },
    ...change,
  };
}

export const show = (element: ReactElement) =>
  render(
    <Provider store={store}>
      <ChakraProvider value={system}>
        <MemoryRouter>{element}</MemoryRouter>
      </ChakraProvider>
    </Provider>,
  );
/** Shows something and opens whatever is folded away in it. */
export function showUnfolded(element: ReactElement): void {
  show(element);
  for (const fold of document.querySelectorAll('details')) {
    fold.open = true;
    fireEvent(fold, new Event('toggle'));
  }
}
export const put = () => store.getState().outbox.items.map(({ kind, path, body }) => ({ kind, path, body }));

// a machine that does something else besides is no reason to fail
configure({ asyncUtilTimeout: 5000 });

/** There is no server but the one a test stands in for: what asks after its test finds nobody, and no real one. */
globalThis.fetch = () => Promise.reject(new TypeError('Failed to fetch'));

/** Somebody of the bench signs in before each test, and leaves nothing on the device after it. */
export function atTheBench(): void {
  beforeEach(() => void signIn('bench'));
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
    vi.unstubAllGlobals();
    store.dispatch(api.util.resetApiState());
    store.dispatch(outboxRead([]));
    for (const key of Object.keys(store.getState().drafts)) store.dispatch(draftTyped({ key, text: '' }));
    localStorage.clear();
  });
}
