import { pointsHeld } from '@zero-lash/core/builds';
import { proofLines } from '@zero-lash/core/signoff';
// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Setting } from '@zero-lash/contract/setting';
import { describe, expect, it } from 'vitest';
import type { BuildView } from '../builds/buildView.ts';
import { store } from '../app/store.ts';
import { ColumnRound } from '../measuring/ColumnRound.tsx';
import { writePointsCsv } from '../signoff/BuildPapers.tsx';
import { ProofTable } from '../signoff/ProofTable.tsx';
import { WhatIsSigned } from '../signoff/WhatIsSigned.tsx';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const stop = (angle: number, points: readonly string[]) => ({
  stop: { angle, turn: 0, points, marked: true, fires: [], rocks: [], fullyOpen: [] },
  ...{ number: 1, place: 'to-come' as const, left: points },
});
const column = (view: BuildView, blind = false) => {
  const shown = { ...view.rounds.at(-1)!, waiting: new Set<string>() };
  return show(
    <ColumnRound
      build={view}
      points={pointsHeld(view.sheet, shown.kind, view.settings)}
      roundAt={() => shown}
      turning={
        { progress: { stops: [stop(0, ['3E', '1I']), stop(360, ['2I'])], here: null, next: null } } as never
      }
      states={{}}
      blind={blind}
    />,
  );
};
const field = (key: string) => screen.getByLabelText(`Gap at ${key}, from paper`);
const type = (key: string, text: string) => {
  fireEvent.change(field(key), { target: { value: text } });
  fireEvent.keyDown(field(key), { key: 'Enter' });
};
const order = () =>
  screen
    .getAllByRole('textbox', { name: /from paper$/ })
    .map((each) => each.getAttribute('aria-label')!.replace(/^Gap at |, from paper$/g, ''));

describe('a round typed from paper', () => {
  it('goes straight down in the order of the stops, or of the head', async () => {
    await signIn('bench');
    column(build({}, SCREW));
    expect(order().slice(0, 4)).toEqual(['3E', '1I', '2I', '1E']);
    expect(order()).toHaveLength(12);
    type('3E', '0.33 0.35');
    expect(put()).toMatchObject([
      {
        kind: 'reading',
        body: { point: '3E', asTyped: '0.33 0.35', reading: { kind: 'bracket', go: 0.33, noGo: 0.35 } },
      },
    ]);
    expect(document.activeElement).toBe(field('1I'));
    // an empty line is gone past, and one that is kept is not kept twice
    fireEvent.keyDown(field('1I'), { key: 'Enter' });
    fireEvent.keyDown(field('3E'), { key: 'Enter' });
    expect(put()).toHaveLength(1);
    fireEvent.change(screen.getByLabelText('Points stand'), { target: { value: 'head' } });
    expect(order().slice(0, 3)).toEqual(['1I', '1E', '2I']);
  });

  it('asks about a slip in its own row, and takes no key for an answer', async () => {
    await signIn('bench');
    column(build({}, SCREW));
    type('1I', '2.5');
    expect(screen.getByRole('alert').textContent).toMatch(/2\.50\smm is far outside the limits/);
    expect(put()).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: /^Use 0\.25/ }));
    expect(put()).toMatchObject([{ body: { point: '1I', doubtKept: false, reading: { blade: 0.25 } } }]);
    type('2I', '2.5');
    // Enter twice says nothing, nor does going on: the figures below are typed meanwhile
    fireEvent.keyDown(field('2I'), { key: 'Enter' });
    fireEvent.blur(field('2I'));
    type('3I', '0.25');
    expect(put()).toMatchObject([{ body: { point: '1I' } }, { body: { point: '3I' } }]);
    fireEvent.click(screen.getByRole('button', { name: /^Keep as typed, 2\.50/ }));
    expect(put()[2]).toMatchObject({ body: { point: '2I', doubtKept: true, reading: { blade: 2.5 } } });
    type('1E', 'wide');
    expect(screen.getByRole('alert').textContent).toContain('not a length');
    type('1E', '-0.2');
    expect(screen.getByRole('alert').textContent).toContain('never negative');
    expect(put()).toHaveLength(3);
    // what stands there is replaced by what is typed next
    const own = field('3I') as HTMLInputElement;
    own.setSelectionRange(0, 0);
    fireEvent.focus(own);
    expect([own.selectionStart, own.selectionEnd]).toEqual([0, 4]);
  });

  it('keeps what was typed where the line is left by a tap, and asks no question under the finger', async () => {
    await signIn('bench');
    column(build({}, SCREW));
    const tapAway = (key: string) => {
      fireEvent.pointerDown(document.body);
      fireEvent.blur(field(key));
    };
    const up = () => fireEvent.pointerUp(document.body);
    fireEvent.change(field('1I'), { target: { value: '2.5' } });
    tapAway('1I');
    expect(screen.queryByRole('alert')).toBeNull();
    up();
    expect((await screen.findByRole('alert')).textContent).toContain('far outside');
    fireEvent.change(field('2I'), { target: { value: '0.25' } });
    tapAway('2I');
    expect(put()).toEqual([]);
    up();
    await waitFor(() => expect(put()).toMatchObject([{ body: { point: '2I', asTyped: '0.25' } }]));
  });

  it('is a second look where somebody looks blind, and knows what it stands over', async () => {
    await signIn('bench');
    const view = build({ rounds: [round({ readings: [reading('1I', 0.2, 0.21, 'tight')] })] }, SCREW);
    column(view, true);
    type('1I', '0.25');
    expect(put()).toMatchObject([{ body: { blind: true, over: 'g-1I', reason: 'typed from paper' } }]);
  });

  it('asks before it takes the place of what somebody measured there', async () => {
    await signIn('bench');
    const view = build({ rounds: [round({ readings: [reading('1I', 0.2, 0.21, 'tight')] })] }, SCREW);
    column(view);
    type('1I', '0.25');
    expect(screen.getByRole('alert').textContent).toMatch(/Osk Velland has 0\.20–0\.21/);
    // Enter once more asks once more, and answers nothing
    fireEvent.keyDown(field('1I'), { key: 'Enter' });
    expect(put()).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: /^Leave 0\.20/ }));
    expect([put(), screen.queryByRole('alert')]).toEqual([[], null]);
    type('1I', '0.26');
    fireEvent.click(screen.getByRole('button', { name: 'Take 0.26 from the paper' }));
    expect(put()).toMatchObject([{ body: { over: 'g-1I', asTyped: '0.26' } }]);
  });

  it('is of the day and the hand that the paper names', async () => {
    await signIn('bench');
    column(build({}, SCREW));
    fireEvent.change(screen.getByLabelText('Measured by'), { target: { value: 'Osk Velland' } });
    const when = (at: string) =>
      fireEvent.change(screen.getByLabelText('When, if not now'), { target: { value: at } });
    when('2025-01-02T15:30');
    type('1I', '0.25');
    expect(put()).toMatchObject([
      { body: { reason: expect.stringMatching(/^typed from paper, measured by Osk Velland on .*2 Jan/) } },
    ]);
    // to the minute: what was changed that day before it was measured, or after, is told apart
    expect(store.getState().outbox.items.map(({ takenAt }) => takenAt)).toEqual([
      new Date('2025-01-02T15:30').toISOString(),
    ]);
    when('2999-01-02T10:00');
    type('2I', '0.25');
    expect(put()).toHaveLength(1);
  });
});

describe('from found to proved', () => {
  const set = (point: string, change: Partial<Setting>): Setting => ({
    ...{ id: `s-${point}`, point, kind: 'fitted', degrees: null, installed: 2.5, fitted: 2.45, mark: '' },
    ...{
      note: '',
      from: 'unsaid',
      to: 'unsaid',
      giver: null,
      cause: 'chosen',
      by: 'Osk Velland',
      superseded: false,
    },
    at: '2031-01-01T11:00:00Z',
    ...change,
  });
  const view = (settings: Setting[]) =>
    build({
      settings,
      // turned over after the change, and read then
      ticks: [
        { stage: 'prove', check: 'two-turns', done: true, by: 'Osk Velland', at: '2031-01-01T11:30:00Z' },
      ],
      rounds: [
        round({ readings: [reading('1I', 0.17, 0.18, 'tight'), reading('2I', 0.24, 0.25, 'in-spec')] }),
        round({
          ...{ id: 'r2', kind: 'proved' },
          readings: ['1I', '2I'].map((key) => ({
            ...reading(key, 0.22, 0.23, 'in-spec'),
            ...{ roundId: 'r2', takenAt: '2031-01-01T12:00:00Z' },
          })),
        }),
      ],
    });
  const lineOf = (shown: BuildView, key: string) => proofLines(shown).find(({ point }) => point.key === key)!;

  it('each point stands with what its change should have left: by the difference, or where it was aimed', () => {
    const fitted = view([set('1I', {})]);
    expect(lineOf(fitted, '1I')).toMatchObject({
      ...{ found: { lo: 0.17 }, forecast: { lo: 0.22, hi: 0.23 }, proved: { lo: 0.22, verdict: 'in-spec' } },
    });
    expect(lineOf(fitted, '2I').forecast).toBeNull();
    const turned = view([set('1I', { kind: 'turned', installed: null, fitted: null, degrees: 20 })]);
    expect(lineOf(turned, '1I').forecast).toEqual({ lo: 0.25, hi: 0.25 });
    const fresh = view([set('1I', { installed: null })]);
    expect(lineOf(fresh, '1I').forecast).toBeNull();
    const bare = view([set('1I', { kind: 'bare', fitted: null })]);
    expect(lineOf(bare, '1I').forecast).toBeNull();
  });

  it('is shown and written as a file', () => {
    const shown = view([set('1I', {})]);
    show(<ProofTable build={shown} />);
    expect(screen.getByRole('row', { name: /^1I/ }).textContent).toContain('0.17–0.180.22–0.230.22–0.23');
    const [head, first] = writePointsCsv(shown).split(/\r?\n/);
    expect(head).toContain('should be from');
    expect(first).toBe('1I,intake,0.21,0.29,0.17,0.18,0.22,0.23,0.22,0.23,in-spec');
    const unseen = {
      ...shown,
      rounds: shown.rounds.map((round) => ({
        ...round,
        readings: round.readings.map((row) => ({ ...row, lo: 0, floor: false })),
      })),
    };
    expect(writePointsCsv(unseen).split(/\r?\n/)[1]).toContain('0.21,0.29,,0.18,');
  });
});

describe('what a signature signs', () => {
  it('names what is open though it was explained: a count that does not balance, an aim outside the band', () => {
    const ledger = [
      {
        ...{ id: 'l', by: 'Tobin Hask', at },
        lines: [
          {
            ...{ key: 'cover bolt, long', group: 'cover', name: 'Cover bolt, long', place: '', expected: 2 },
            ...{ out: 2, in: 1, note: '', dropped: false },
          },
        ],
      },
    ] as unknown as BuildView['ledger'];
    const view = build({ stage: 'close', ledger }, SCREW);
    const limits = view.sheet.limits.map((limit) => ({ ...limit, aimedOutside: limit.role === 'exhaust' }));
    show(<WhatIsSigned build={{ ...view, sheet: { ...view.sheet, limits } as BuildView['sheet'] }} />);
    const open = screen.getByText('Open cautions').nextElementSibling!.textContent;
    expect(open).toContain('The count does not balance: Cover bolt, long (1 missing)');
    expect(open).toContain('Aimed outside the maker’s band: exhaust');
    cleanup();
    show(<WhatIsSigned build={build({ stage: 'close' }, SCREW)} />);
    expect(screen.getByText('Open cautions').nextElementSibling!.textContent).toBe('none');
  });
});
