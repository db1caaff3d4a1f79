import { limitedPoints } from '@zero-lash/core/measuring';
// @vitest-environment happy-dom
// Long because what a person meets at one point (setting, a stage’s work, rechecks) is shown from the same build.
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, createEvent, fireEvent, render, screen } from '@testing-library/react';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { memo } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { describe, expect, it } from 'vitest';
import { inlineSix } from '../../core/test/patterns.ts';
import {
  at,
  atTheBench,
  build,
  put,
  reading,
  round,
  SCREW,
  show,
  signIn,
  plannedRecheck,
} from './shownBench.tsx';
import { store } from '../app/store.ts';
import { useSame } from '../app/useSame.ts';
import { useShared } from '../app/useShared.ts';
import { system } from '../app/theme.ts';
import type { BuildView } from '../builds/buildView.ts';
import { StageWork } from '../buildPage/StageWork.tsx';
import { Rechecks } from '../rechecks/Rechecks.tsx';
import { StrikeOut } from '../measuring/StrikeOut.tsx';
import type { Setting } from '@zero-lash/contract/setting';
import { SettingForm } from '../setting/SettingForm.tsx';
import { WhatWasDone } from '../setting/WhatWasDone.tsx';

atTheBench();

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

  it('asks about a piece that looks like a slip before it is written down, with what was likely meant a key away', () => {
    show(form(build(), '1I', reading('1I', 0.17, 0.18, 'tight')));
    fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value: '24.5' } });
    fireEvent.change(screen.getByLabelText('fitted, mm'), { target: { value: '2.55' } });
    const write = () => fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    write();
    expect(screen.getByRole('alert').textContent).toMatch(/No bucket of 24.50\smm is made/);
    // what was typed and what it may have been stand side by side; Enter alone chooses neither
    expect(document.activeElement).toBe(screen.getByRole('alert'));
    fireEvent.click(screen.getByRole('button', { name: /^Use 2.45\smm/ }));
    write();
    expect(screen.getByRole('alert').textContent).toContain('thicker than what was in');
    expect(put()).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: /^Keep as typed/ }));
    expect(put()).toMatchObject([{ body: { installed: 2.45, fitted: 2.55 } }]);
  });

  it('reads a mark, and where the micrometer says another thickness asks which is believed, and keeps both', () => {
    const type = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    const asked = () => {
      cleanup();
      show(form(build(), '1I', reading('1I', 0.17, 0.18, 'tight')));
      type('in now, mm', '2.55');
      type('its mark', '245');
    };
    asked();
    expect(screen.getByText(/Its mark reads 2.45\smm; nobody measured it/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Fitted 2.45' }));
    expect(put()).toMatchObject([{ body: { fitted: 2.45, mark: '245', note: '' } }]);
    asked();
    type('fitted, mm', '2.42');
    const write = () => fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    write();
    expect(screen.getByRole('alert').textContent).toContain('Which is believed?');
    expect(put()).toHaveLength(1);
    fireEvent.click(screen.getByRole('button', { name: /^The micrometer/ }));
    expect(put()[1]).toMatchObject({
      body: { fitted: 2.42, mark: '245', note: 'mark 2.45, micrometer 2.42 mm: the mark is worn or lies' },
    });
    asked();
    type('fitted, mm', '2.42');
    write();
    fireEvent.click(screen.getByRole('button', { name: /^The mark/ }));
    expect(put()[2]).toMatchObject({
      body: { fitted: 2.45, note: expect.stringContaining('the micrometer slipped') },
    });
  });

  it('asks about a mark that nobody can read, and wants the micrometer where nobody measured the piece', () => {
    const type = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    show(form(build(), '1I', reading('1I', 0.17, 0.18, 'tight')));
    type('in now, mm', '2.55');
    type('its mark', 'X7');
    fireEvent.click(screen.getByRole('button', { name: /^Fitted|^Write down/ }));
    expect(screen.getByRole('alert').textContent).toContain('“X7” is no size that is made here');
    fireEvent.click(screen.getByRole('button', { name: 'Keep “X7”' }));
    expect(screen.getByText(/Its mark says no size: measure it/)).toBeTruthy();
    expect(put()).toEqual([]);
    type('fitted, mm', '2.45');
    fireEvent.click(screen.getByRole('button', { name: /^Keep “X7”, 2\.45/ }));
    expect(put()).toMatchObject([{ body: { fitted: 2.45, mark: 'X7' } }]);
  });

  it('asks about more than a whole turn', () => {
    show(form(build({}, SCREW), '1I', reading('1I', 0.1, 0.12, 'tight')));
    const own = screen.getByLabelText(/Or what was turned/);
    fireEvent.change(own, { target: { value: '450' } });
    fireEvent.submit(own.closest('form')!);
    expect(screen.getByRole('alert').textContent).toMatch(/the screw moves 1\.25\smm/);
    expect(put()).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'I meant 45°' }));
    expect(put()).toMatchObject([{ body: { kind: 'turned', degrees: 45 } }]);
  });

  it('works nothing out where no blade went', () => {
    show(form(build({}, SCREW), '1I', reading('1I', 0, 0.05, 'tight')));
    expect(screen.getByText('No blade went: back it off until one goes, then measure')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Turned and locked as said' })).toBeNull();
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
    // by the event's own clock: how long this machine takes between them says nothing
    const tapAt = (ms: number) => {
      const tap = createEvent.click(turned(), { detail: 1 });
      Object.defineProperty(tap, 'timeStamp', { value: ms });
      fireEvent(turned(), tap);
    };
    tapAt(1000);
    next();
    tapAt(1200);
    expect(put()).toHaveLength(1);
    fireEvent.click(turned(), { detail: 0 });
    expect(put()).toHaveLength(2);
  });
});

describe('what was done at a point', () => {
  const done: Setting = {
    ...{ id: 's', point: '1I', kind: 'fitted', degrees: null, installed: 2.45, fitted: 2.35, mark: '235' },
    ...{
      note: '',
      by: 'Osk Velland',
      at,
      superseded: false,
      from: 'unsaid',
      to: 'unsaid',
      giver: null,
      cause: 'chosen',
    },
  };
  const said = (change: Partial<Setting>) => {
    cleanup();
    return show(<WhatWasDone done={{ ...done, ...change }} unit="mm" />).container.textContent;
  };

  it('is said to everybody who looks, by whoever did it', () => {
    expect(said({})).toMatch(/2\.45\smm out, 2\.35\smm in, marked 235 by Osk Velland/);
    expect(said({ kind: 'turned', degrees: -30 })).toContain('tightened 30° by');
    expect(said({ kind: 'turned', degrees: null })).toContain('turned by');
    expect(said({ kind: 'left', note: 'at the edge, watched' })).toContain(
      'left alone: at the edge, watched',
    );
  });

  it('is followed by measuring it again, unless a cam is out for it', () => {
    for (const [means, stays] of [
      [SCREW, true],
      [inlineSix.means, false],
    ] as const) {
      cleanup();
      let gone = 0;
      const view = build({}, means);
      show(
        <SettingForm
          build={view}
          point={limitedPoints(view.sheet).find(({ key }) => key === '1I')!}
          reading={reading('1I', 0.1, 0.12, 'tight')}
          stale={false}
          target={0.25}
          onNext={() => (gone += 1)}
        />,
      );
      if (!stays) fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value: '2.45' } });
      fireEvent.click(screen.getByRole('button', { name: stays ? /Turned and locked/ : /^Fitted/ }));
      expect(gone).toBe(stays ? 0 : 1);
    }
  });
});

describe('a reading', () => {
  it('is struck out with a reason only, and then says that nothing is known', () => {
    show(<StrikeOut buildId="b" reading={reading('1I', 0.2, 0.22, 'in-spec')} />);
    fireEvent.click(screen.getByRole('button', { name: /Strike this reading out/ }));
    const removeLogged = () => fireEvent.click(screen.getByRole('button', { name: 'Strike out' }));
    removeLogged();
    expect(screen.getByText('Say in a word why it does not count.')).toBeTruthy();
    expect(put()).toEqual([]);
    fireEvent.change(screen.getByLabelText(/Struck out because/), { target: { value: 'wrong cylinder' } });
    removeLogged();
    expect(put()).toMatchObject([
      {
        path: 'rounds/r/readings',
        body: { point: '1I', reading: { tries: [] }, reason: 'wrong cylinder', over: 'g-1I' },
      },
    ]);
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
    const ticks = ['marked', 'counted-out', 'plugged', 'gasket', 'lobes'].map((check) => ({
      ...once,
      check,
      done: check !== 'gasket',
      ...(check === 'gasket' ? { earlier: [at], earlierBy: ['Tobin Hask'] } : {}),
    }));
    show(work(build({ stage: 'open-up', ticks })));
    const boxes = screen.getAllByRole('checkbox').map((box) => (box as HTMLInputElement).checked);
    expect(boxes).toEqual([true, true, true, false, true]);
    expect(screen.getByText(/Tick off first: gasket/)).toBeTruthy();
    // who had ticked it knows how it stood
    expect(screen.getByText('ticked by Tobin Hask before')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Go on to As found' })).toHaveProperty('disabled', true);
  });

  it('has a check ticked as it is tapped, and writes it down', () => {
    show(work(build({ stage: 'open-up' })));
    const [box] = screen.getAllByRole('checkbox');
    fireEvent.click(box!);
    expect(box).toHaveProperty('checked', true);
    expect(put()).toMatchObject([{ kind: 'tick', body: { stage: 'open-up', check: 'marked', done: true } }]);
  });
});

describe('the rechecks of a build', () => {
  const recheck = plannedRecheck;
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

  it('name who else measured, and when they were last heard of, before the round is judged', () => {
    const readings = limitedPoints(build().sheet).map(({ key }, index) => ({
      ...reading(key, 0.24, 0.26, 'in-spec'),
      by: index === 0 ? 'Runa Feld' : 'Tobin Hask',
    }));
    const opened = round({ id: 'rc', kind: 'recheck', recheckId: 'rc', readings });
    show(<Rechecks build={view([opened])} />);
    expect(screen.getByText(/Measured here too/).textContent).toContain('Runa Feld, last heard of');
    cleanup();
    const alone = readings.map((row) => ({ ...row, by: 'Tobin Hask' }));
    show(<Rechecks build={view([{ ...opened, readings: alone }])} />);
    expect(screen.queryByText(/Measured here too/)).toBeNull();
  });
});

describe('what is worked out again', () => {
  it('is drawn again only where it says something else', () => {
    const drawn: string[] = [];
    const Row = memo(function Row({ row }: { readonly row: { readonly name: string } }) {
      drawn.push(row.name);
      return null;
    });
    function Rows({ rows }: { readonly rows: readonly { readonly name: string }[] }) {
      return useShared(rows).map((row, index) => <Row key={index} row={row} />);
    }
    const shown = render(<Rows rows={[{ name: '1I' }, { name: '1E' }]} />);
    shown.rerender(<Rows rows={[{ name: '1I' }, { name: '2E' }]} />);
    shown.rerender(<Rows rows={[{ name: '1I' }, { name: '2E' }]} />);
    expect(drawn).toEqual(['1I', '1E', '2E']);
  });
});

describe('what is put together at every render', () => {
  it('stays the same for as long as each of its parts is', () => {
    const seen = new Set<object>();
    function Together({ of }: { readonly of: { readonly a: object; readonly b: number } }) {
      seen.add(useSame({ ...of }));
      return null;
    }
    const a = {};
    const { rerender } = render(<Together of={{ a, b: 1 }} />);
    rerender(<Together of={{ a, b: 1 }} />);
    expect(seen.size).toBe(1);
    rerender(<Together of={{ a, b: 2 }} />);
    rerender(<Together of={{ a: {}, b: 2 }} />);
    expect(seen.size).toBe(3);
  });
});
