// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import type { Session } from '@zero-lash/contract/people';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import type { Means, Pattern } from '@zero-lash/core/sheets';
import type { ReactElement } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { inlineSix } from '../../core/test/patterns.ts';
import { outboxRead } from '../app/outbox.ts';
import { store } from '../app/store.ts';
import { system } from '../app/theme.ts';
import type { BuildView } from '../builds/buildView.ts';
import { StageWork } from '../builds/StageWork.tsx';
import { limitedPoints } from '../builds/points.ts';
import { peopleApi } from '../people/endpoints.ts';
import { Rechecks } from '../rechecks/Rechecks.tsx';
import { SettingForm } from '../setting/SettingForm.tsx';

const signIn = (role: Session['person']['role']) =>
  store.dispatch(
    peopleApi.util.upsertQueryData('session', undefined, {
      person: { id: 'tobin', name: 'Tobin Hask', role, active: true, version: 1 },
      shop: { name: 'Overmere', unit: 'mm', zone: 'UTC', gaugesOnNetwork: false, version: 1 },
    }),
  );
beforeEach(() => signIn('bench'));
afterEach(() => {
  cleanup();
  store.dispatch(outboxRead([]));
  localStorage.clear();
});

const at = '2031-01-01T10:00:00Z';
const reading = (point: string, lo: number, hi: number, verdict: ReadingRow['verdict']): ReadingRow => ({
  ...{ id: `g-${point}`, roundId: 'r', point, lo, hi, verdict, onLimit: false, asTyped: `${lo} ${hi}` },
  ...{ reading: { kind: 'bracket', go: lo, noGo: hi }, doubtKept: false, crankAngle: null, offBase: false },
  ...{
    instrument: null,
    takenAt: at,
    blind: false,
    firstLook: null,
    by: 'Osk Velland',
    at,
    supersedes: null,
  },
  ...{ reason: '', superseded: false, earlier: 0 },
});
const round = (change: Partial<Round> = {}): Round => ({
  ...{ id: 'r', kind: 'as-found', number: 1, recheckId: null, openedAt: at, openedBy: 'Osk Velland' },
  ...{ closedAt: null, turning: { school: 'fewest', at: null, done: [] }, conditions: [], readings: [] },
  ...change,
});
const SCREW: Means = {
  ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: 20 },
};
function build(change: Partial<BuildView> = {}, means: Means = inlineSix.means): BuildView {
  const pattern: Pattern = { ...inlineSix, means };
  return {
    ...{ id: 'b', number: 1, stage: 'set', complaint: 'ticks', aim: 'middle', version: 3 },
    ...{ openedAt: at, openedBy: 'Osk Velland', closedAt: null, revisionId: 's', signOff: null },
    engine: { id: 'e', name: 'Frost fan 7', usageUnit: 'hours', usage: 100, running: 100 },
    sheet: {
      pattern,
      limits: [
        { role: 'intake', min: 0.21, max: 0.29, asWritten: '' },
        { role: 'exhaust', min: 0.31, max: 0.39, asWritten: '' },
      ],
    } as BuildView['sheet'],
    rounds: [round()],
    ...{ settings: [], ticks: [], notes: [], rechecks: [] },
    ...change,
  };
}

const show = (element: ReactElement) =>
  render(
    <Provider store={store}>
      <ChakraProvider value={system}>
        <MemoryRouter>{element}</MemoryRouter>
      </ChakraProvider>
    </Provider>,
  );
const put = () => store.getState().outbox.items.map(({ kind, path, body }) => ({ kind, path, body }));

describe('the form of a setting', () => {
  const form = (view: BuildView, key: string, given: ReadingRow | undefined, stale = false) => (
    <SettingForm
      build={view}
      point={limitedPoints(view.sheet).find((point) => point.key === key)!}
      reading={given}
      stale={stale}
      target={0.25}
      onNext={() => undefined}
    />
  );

  it('says which piece to fit once it knows what is in, and writes down what was fitted', () => {
    show(form(build(), '1I', reading('1I', 0.17, 0.18, 'tight')));
    expect(screen.queryByText(/^Fit /)).toBeNull();
    fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value: '2.45' } });
    // 0.175 is measured and 0.25 wanted: exactly between two sizes, the thinner of which leaves the looser gap
    expect(screen.getByText('Fit 2.35 mm: thinner opens the gap')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^Fitted/ }));
    expect(put()).toMatchObject([
      {
        kind: 'setting',
        path: 'builds/b/settings',
        body: { point: '1I', kind: 'fitted', installed: 2.45, fitted: 2.35 },
      },
    ]);
  });

  it('does not advise on what is no piece, and keeps what was typed', () => {
    show(form(build(), '1I', reading('1I', 0.17, 0.18, 'tight')));
    fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value: 'two and a half' } });
    fireEvent.submit(screen.getByLabelText('in now, mm').closest('form')!);
    expect(put()).toEqual([]);
    expect(screen.getByLabelText('in now, mm')).toHaveProperty('value', 'two and a half');
    expect(screen.getByText(/The thickness in there now/)).toBeTruthy();
  });

  it('has nothing to go by where the point was changed since it was measured, or never was', () => {
    show(form(build({}, SCREW), '1I', undefined, true));
    expect(screen.getByText(/Changed, and not measured since/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Turned and locked as said' })).toBeNull();
    cleanup();
    show(form(build({}, SCREW), '1I', undefined));
    expect(screen.getByText('Measure the gap first')).toBeTruthy();
  });

  it('takes one turn of a finger that bounced onto the next point, and both of two keys', () => {
    const view = build({}, SCREW);
    const shown = show(form(view, '1I', reading('1I', 0.1, 0.12, 'tight')));
    const next = () =>
      shown.rerender(
        <Provider store={store}>
          <ChakraProvider value={system}>
            <MemoryRouter>{form(view, '1E', reading('1E', 0.1, 0.12, 'tight'))}</MemoryRouter>
          </ChakraProvider>
        </Provider>,
      );
    const turned = () => screen.getByRole('button', { name: 'Turned and locked as said' });
    fireEvent.click(turned(), { detail: 1 });
    next();
    fireEvent.click(turned(), { detail: 1 });
    expect(put()).toHaveLength(1);
    fireEvent.click(turned(), { detail: 0 });
    expect(put()).toHaveLength(2);
  });
});

describe('what stands at a stage', () => {
  const work = (view: BuildView, blind = false) => (
    <StageWork
      build={view}
      stage={view.stage}
      blind={blind}
      onPoint={() => undefined}
      onLook={() => undefined}
    />
  );
  const found = build({ rounds: [round({ readings: [reading('1I', 0.17, 0.18, 'tight')] })] });

  it('names what stands against going on, and shows the first of it', () => {
    show(work(found));
    expect(
      screen.getByText(/1 point found out of spec or undecided has no setting recorded: 1I/),
    ).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Go on to Prove' })).toHaveProperty('disabled', true);
    expect(screen.getByRole('button', { name: 'Show 1I' })).toBeTruthy();
  });

  it('names nothing of it to a second pair of eyes', () => {
    show(work(found, true));
    expect(screen.queryByText(/1I/)).toBeNull();
    expect(screen.getByRole('button', { name: 'Go on to Prove' })).toHaveProperty('disabled', true);
  });

  it('lets a viewer see it, and do nothing', async () => {
    await signIn('viewer');
    show(work(build({ stage: 'open-up' })));
    for (const box of screen.getAllByRole('checkbox')) expect(box).toHaveProperty('disabled', true);
    expect(screen.queryByRole('button', { name: /Go on/ })).toBeNull();
  });

  it('has a check that was ticked and unticked as unticked, and as standing against going on', () => {
    const once = { stage: 'open-up' as const, by: 'Osk Velland', at };
    const ticks = ['counted-out', 'gasket', 'lobes'].map((check) => ({
      ...once,
      check,
      done: check !== 'gasket',
    }));
    show(work(build({ stage: 'open-up', ticks })));
    const boxes = screen.getAllByRole('checkbox').map((box) => (box as HTMLInputElement).checked);
    expect(boxes).toEqual([true, false, true]);
    expect(screen.getByText(/Tick off first: gasket/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Go on to As found' })).toHaveProperty('disabled', true);
  });

  it('has a check ticked as it is tapped, and writes it down', () => {
    show(work(build({ stage: 'open-up' })));
    const [box] = screen.getAllByRole('checkbox');
    fireEvent.click(box!);
    expect(box).toHaveProperty('checked', true);
    expect(put()).toMatchObject([
      { kind: 'tick', body: { stage: 'open-up', check: 'counted-out', done: true } },
    ]);
  });
});

describe('the rechecks of a build', () => {
  const recheck: PastRecheck = {
    ...{ id: 'rc', buildId: 'b', sequence: 1, dueUsage: 150, dueDate: '2031-03-01', status: 'planned' },
    ...{ outcome: null, doneAt: null, doneBy: null, state: 'due' },
  };
  const view = (rounds: Round[]) => build({ stage: 'run-in', rechecks: [recheck], rounds });

  it('begin at a word, with a round of the recheck’s own id', () => {
    show(<Rechecks build={view([])} />);
    fireEvent.click(screen.getByRole('button', { name: 'Measure it now' }));
    expect(put()).toMatchObject([{ kind: 'round', path: 'rechecks/rc/round' }]);
  });

  it('are judged when every point is measured, and not before', () => {
    const readings = limitedPoints(build().sheet).map(({ key }) => reading(key, 0.24, 0.26, 'in-spec'));
    const opened = round({ id: 'rc', kind: 'recheck', recheckId: 'rc', readings: readings.slice(1) });
    show(<Rechecks build={view([opened])} />);
    expect(screen.getByRole('button', { name: 'Judge the recheck' })).toHaveProperty('disabled', true);
    expect(screen.getByText('1 point to measure')).toBeTruthy();
    cleanup();
    show(<Rechecks build={view([{ ...opened, readings }])} />);
    expect(screen.getByRole('button', { name: 'Judge the recheck' })).toHaveProperty('disabled', false);
  });
});
