// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import { fireEvent, render, screen } from '@testing-library/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { Setting } from '@zero-lash/contract/setting';
import type { Means } from '@zero-lash/core/sheets';
import { limitedPoints } from '@zero-lash/core/measuring';
import { pointStatus } from '@zero-lash/core/builds';
import { piecePoints, planQuestions } from '@zero-lash/core/setting';
import { proofLines } from '@zero-lash/core/signoff';
import type { Change } from '../buildPage/headPoints.ts';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { BrokenPage } from '../app/BrokenPage.tsx';
import { system } from '../app/theme.ts';
import { store } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { withPending } from '../builds/pending.ts';
import { PointPanel } from '../buildPage/PointPanel.tsx';
import type { TurningWork } from '../turning/useTurning.ts';
import { RockPad } from '../measuring/TryPads.tsx';
import { cautionAt } from '../measuring/cautionAt.ts';
import { SettingForm } from '../setting/SettingForm.tsx';
import { planAll } from '../pieces/plans.ts';
import '../start/rooms.ts';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

/** Shims under fingers of ratio 1.6, whose gap is taken at the cam. */
const FINGER: Means = {
  ...{ kind: 'shim', seat: 'under-finger', sizes: { from: 1.8, to: 3, step: 0.025 }, diameter: 9 },
  ...{ marking: '', stampedIn: 'mm', seatOffset: null, rockerRatio: 1.6, gapAt: 'cam' },
};
const pointOf = (view: BuildView, key: string) => limitedPoints(view.sheet).find((each) => each.key === key)!;
const form = (view: BuildView, given: ReadingRow, target = 0.25) => (
  <SettingForm
    build={view}
    point={pointOf(view, given.point)}
    reading={given}
    stale={false}
    target={target}
    onNext={() => undefined}
  />
);
const isIn = (value: string) => fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value } });

describe('a piece under a finger', () => {
  const tight = reading('1I', 0.17, 0.18, 'tight');
  const figure = {
    kind: 'figure',
    item: 'piece-in',
    place: '1I',
    field: 'value',
    values: [1.925],
    how: 'measured',
  };
  const wear = [
    { id: 'w', by: 'x', at, lines: [{ ...figure, asTyped: '1.925', set: 'found', doubtKept: false }] },
  ] as unknown as BuildView['wear'];
  const view = build({ wear, rounds: [round({ readings: [tight] })] }, FINGER);

  it('is the same at the point, in the plan and in what is to be proved, by its leverage', () => {
    show(form(view, tight));
    // by the bare difference 1.85 would leave 0.245–0.255, and leaves five eighths of that change
    expect(screen.getByText(/^Fit 1.80/)).toBeTruthy();
    const [question] = planQuestions(view, piecePoints(view), undefined, {
      ...{ change: { rule: 'out-of-spec' }, reuse: true, drawer: false, keep: [], without: [], guard: 0.004 },
    });
    const planned = planAll([question!]).plan.assignments.find(({ key }) => key === '1I')!;
    expect(planned.thickness).toBe(1.8);
    expect(screen.getByText(/^leaves 0.248/)).toBeTruthy();
    expect(planned.lo).toBeCloseTo(0.248125);
    const fitted = {
      ...{ id: 's', point: '1I', kind: 'fitted', degrees: null, installed: 1.925, fitted: 1.8, mark: '' },
      ...{
        note: '',
        from: 'unsaid',
        to: 'unsaid',
        giver: null,
        by: 'x',
        superseded: false,
        at: '2031-01-01T11:00:00Z',
      },
    } as Setting;
    const line = proofLines({ ...view, settings: [fitted] }).find(({ point }) => point.key === '1I')!;
    expect(line.forecast!.lo).toBeCloseTo(planned.lo!, 4);
  });

  it('is none where nothing made brings it in, and never the one that leaves it tight', () => {
    show(form(view, { ...tight, lo: 0.05, hi: 0.06, reading: { kind: 'bracket', go: 0.05, noGo: 0.06 } }));
    expect(screen.getByText('No shim that is made brings it into spec')).toBeTruthy();
    expect(screen.getByText(/look at the stem and the seat first; no tip is ground here/)).toBeTruthy();
    expect(screen.queryByText(/^Keep/)).toBeNull();
  });

  it('is named so thin that a blade will surely go, where none went', () => {
    const none: ReadingRow = {
      ...{ ...tight, lo: 0, hi: 0.1, floor: false },
      reading: { kind: 'tries', tries: [{ thickness: 0.1, result: 'wont' }], repeatability: 0.01 },
    };
    show(form(view, none));
    isIn('2.5');
    expect(screen.getByText(/No blade went: fit a thinner shim/)).toBeTruthy();
    expect(screen.getByText(/a blade will surely go: measure with that/).textContent).toContain('1.80');
    expect(screen.queryByText(/^leaves/)).toBeNull();
  });
});

describe('a piece that is fitted', () => {
  const tight = reading('1I', 0.17, 0.18, 'tight');
  const setting = (point: string, mm: number, more: object = {}) =>
    ({
      ...{ id: `s-${point}`, point, kind: 'fitted', degrees: null, installed: 2.2, fitted: mm, mark: '' },
      ...{
        note: '',
        from: 'unsaid',
        to: 'engine',
        giver: null,
        cause: 'chosen',
        by: 'Osk Velland',
        superseded: false,
      },
      ...{ at: '2031-01-01T11:00:00Z', ...more },
    }) as Setting;
  const view = (settings: readonly Setting[] = []) =>
    build({ rounds: [round({ readings: [tight] })], settings: [...settings] }, FINGER);
  const types = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const bodies = () => put().map(({ body }) => body as Record<string, unknown>);

  it('says in the same tap from where and to where, and may say otherwise', () => {
    show(form(view([setting('2I', 1.8)]), tight));
    isIn('1.925');
    types('fitted, mm', '1.8');
    fireEvent.change(screen.getByLabelText('The one out goes to'), { target: { value: 'scrapped' } });
    fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    expect(bodies()).toMatchObject([{ fitted: 1.8, from: 'drawer', to: 'scrapped', giver: null }]);
  });

  it('that lay beside the engine comes from there; one that stays in goes nowhere', () => {
    show(form(view([setting('2I', 1.8)]), tight));
    isIn('1.925');
    types('fitted, mm', '2.2');
    expect((screen.getByLabelText('It comes from') as HTMLSelectElement).value).toBe('engine');
    types('fitted, mm', '1.925');
    expect(screen.queryByLabelText('It comes from')).toBeNull();
  });

  it('and is in at another point by the record is asked about: another one like it, or that one', () => {
    show(form(view([setting('2I', 1.787)]), tight));
    isIn('1.925');
    types('fitted, mm', '1.787');
    fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    // that none is made so thin is asked first
    fireEvent.click(screen.getByRole('button', { name: /^Keep as typed/ }));
    expect(bodies()).toEqual([]);
    expect(screen.getByText(/is in at 2I by the record/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'The same: it came out of 2I' }));
    expect(bodies()).toMatchObject([{ fitted: 1.787, from: 'engine', giver: '2I', to: 'drawer' }]);
  });

  it('and was written down wrongly is taken back with why, and stands no more on this device', () => {
    show(form(view([setting('1I', 1.8)]), tight));
    fireEvent.click(screen.getByRole('button', { name: 'Take it back…' }));
    fireEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(screen.getByText('Say what was wrong with it.')).toBeTruthy();
    types('Taken back because', 'it was 1E');
    fireEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(put()).toMatchObject([
      {
        ...{ kind: 'setting-taken-back', path: 'builds/b/settings/s-1I/taken-back' },
        body: { reason: 'it was 1E' },
      },
    ]);
    const waiting = store.getState().outbox.items;
    expect(withPending(view([setting('1I', 1.8), setting('2I', 1.8)]), waiting).settings).toMatchObject([
      { point: '2I' },
    ]);
  });
});

describe('a turn', () => {
  it('of nothing is not offered, and not written', () => {
    const view = build({ rounds: [round({ readings: [reading('1I', 0.245, 0.255, 'in-spec')] })] }, SCREW);
    show(form(view, reading('1I', 0.245, 0.255, 'in-spec')));
    expect(screen.getByText('On target: nothing to turn')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Turned and locked as said' })).toBeNull();
    fireEvent.change(screen.getByLabelText(/Or what was turned/), { target: { value: '0' } });
    fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    expect(screen.getByText(/Nothing was turned/)).toBeTruthy();
    expect(put()).toEqual([]);
  });
});

describe('the pads of a blade', () => {
  it('offer that it rocks with no blade in, and say what is meant by that', () => {
    const tapped = vi.fn();
    show(<RockPad heldShut onTap={tapped} />);
    expect(screen.getByText(/Felt across the gap, up and down, the valve held firmly shut/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Rocks at the gap, no blade enters' }));
    expect(tapped).toHaveBeenCalledWith({ thickness: 0, result: 'goes' }, 'rocks', expect.any(Number));
  });
});

describe('what is read at proving', () => {
  it('waits for the two turns, and says so', async () => {
    await signIn('bench');
    const ticks = [{ stage: 'prove' as const, check: 'two-turns', done: true, by: 'Osk Velland', at }];
    const proved = { ...round({ kind: 'proved' }), waiting: new Set<string>() };
    const said = (view: BuildView) => cautionAt(view, proved, '1I', false, false);
    expect(said(build({ stage: 'prove' }, SCREW))).toContain('Two full turns by hand first');
    expect(said(build({ stage: 'prove', ticks }, SCREW))).toContain('Blade clean and dry');
    const early = { ...reading('1I', 0.22, 0.24, 'in-spec'), takenAt: '2031-01-01T09:00:00Z' };
    expect(pointStatus(early, { at: null, counts: at })).toBe('before-turns');
    expect(pointStatus(early, null)).toBe('in-spec');
  });
});

describe('a point’s panel', () => {
  const panel = (given: ReadingRow, change: Change | null = null) => {
    const closed = { ...round({ readings: [given], closedAt: at }), waiting: new Set<string>() };
    const view = build({ stage: 'set', rounds: [closed] }, SCREW);
    const nobody = () => undefined;
    show(
      <PointPanel
        {...{
          build: view,
          round: closed,
          visit: closed.id,
          stage: 'as-found',
          point: pointOf(view, '1I'),
          change,
          blind: false,
        }}
        turning={{} as TurningWork}
        {...{
          onNext: nobody,
          onSelect: nobody,
          onWalk: nobody,
          beside: [],
          feltHere: () => [],
          staysFor: () => false,
        }}
      />,
    );
    return document.querySelector('.point-figures')!.textContent;
  };

  it('says the blade that did not go, and no nought that nobody measured', async () => {
    await signIn('bench');
    const tight = { ...reading('1I', 0, 0.04, 'tight'), floor: false };
    expect(panel(tight)).toContain('under 0.04');
    expect(screen.getByRole('img', { name: /^tight: no lower end known to 0.04/ })).toBeTruthy();
  });

  it('says of what was read before the two turns what the map says: it proves nothing', async () => {
    await signIn('bench');
    const early = { ...reading('1I', 0.22, 0.24, 'in-spec'), takenAt: '2031-01-01T09:00:00Z' };
    expect(panel(early, { at: null, fitted: null, kind: 'turned', counts: at })).not.toContain('in spec');
    expect(screen.getByText(/before the two turns: it proves nothing/)).toBeTruthy();
  });
});

describe('a page that breaks', () => {
  const broken = (message: string) => {
    const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    const Breaks = () => {
      throw new Error(message);
    };
    const router = createMemoryRouter([{ path: '/', element: <Breaks />, errorElement: <BrokenPage /> }]);
    render(
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
      </ChakraProvider>,
    );
    quiet.mockRestore();
  };

  it('says what happened, what is kept and where to go', () => {
    broken('nothing of nothing');
    expect(screen.getByRole('heading', { name: 'This page broke' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toMatch(/kept on it, and is sent as before/);
    expect(screen.getByRole('link', { name: 'Back to Today' })).toBeTruthy();
  });

  it('knows a part that is gone since the application was renewed', () => {
    broken('Failed to fetch dynamically imported module: /assets/BuildPage-abc.js');
    expect(screen.getByRole('heading', { name: 'The application was renewed' })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Reload' })).toBeTruthy();
  });
});
