// @vitest-environment happy-dom
// Long because the pages of an open head are tried on one build.
import { METRIC } from '@zero-lash/core/length';
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { lashPoints, type Means } from '@zero-lash/core/sheets';
import { characteristicOf, wearSheetOf, type FigureLine, type WearLine } from '@zero-lash/core/wear';
import type { ComponentProps } from 'react';
import { describe, expect, it } from 'vitest';
import type { LedgerLine } from '@zero-lash/core/parts';
import type { BuildView } from '../builds/buildView.ts';
import { withPending } from '../builds/pending.ts';
import { store } from '../app/store.ts';
import { BudgetPanel } from '../headwork/BudgetPanel.tsx';
import { KnowHow } from '../knowHow/KnowHow.tsx';
import { CountIn } from '../parts/CountIn.tsx';
import { CountOut } from '../parts/CountOut.tsx';
import { StopNotes } from '../turning/StopNotes.tsx';
import { writePartsCsv } from '../parts/csv.ts';
import { base64Of, whyNoPicture } from '../app/picture.ts';
import { warningsIn, readWearCsv, writeWearCsv } from '../wear/csv.ts';
import { useWear } from '../wear/useWear.ts';
import { WearGrid } from '../wear/WearGrid.tsx';
import { WearSummary } from '../wear/WearSummary.tsx';
import '../start/rooms.ts';
import { atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const at = '2026-11-20T10:00:00.000Z';
const figure = (item: string, place: string, field: string, values: number[]): FigureLine => ({
  ...{ kind: 'figure', item, place, field, values, asTyped: values.join(' ') },
  ...{ how: 'measured', set: 'found', doubtKept: false },
});
const entry = (lines: WearLine[], by = 'Osk Velland', id = 'e1', when = at) =>
  ({ id, by, at: when, lines }) as BuildView['wear'][number];
const sheetWith = (view: BuildView, wearLimits: object[]): BuildView => ({
  ...view,
  sheet: { ...view.sheet, wearLimits } as BuildView['sheet'],
});
const NO = {
  nominal: null,
  limit: null,
  min: null,
  max: null,
  place: '',
  of: 'both',
  source: '',
  unit: 'mm',
};
const LIMITS = [
  { ...NO, part: 'valve-margin', nominal: 1.2, limit: 0.7 },
  { ...NO, part: 'stem-guide', nominal: 0.03, limit: 0.08 },
];
const wearBuild = (change: Partial<BuildView> = {}) =>
  sheetWith(build({ stage: 'wear', wear: [], ...change }), LIMITS);

/** A grid on its own, as the wear sheet shows it. */
function Grid({ view, items }: { readonly view: BuildView; readonly items: readonly string[] }) {
  const work = useWear(view);
  const props: ComponentProps<typeof WearGrid> = {
    ...{ buildId: view.id, pattern: view.sheet.pattern, work, set: 'found', shown: METRIC },
    items: items.map((key) => characteristicOf(key)!),
  };
  return <WearGrid {...props} />;
}

const cell = (name: string) => screen.getByRole('textbox', { name });
const type = (name: string, text: string, key = 'Enter') => {
  cell(name).focus();
  fireEvent.change(cell(name), { target: { value: text } });
  fireEvent.keyDown(cell(name), { key });
};
/** What was typed is written once it is painted, or as soon as the next thing is done. */
const settle = () => fireEvent.click(document.body);
const lines = () => (settle(), put()).flatMap(({ body }) => (body as { lines: FigureLine[] }).lines);

describe('a field of the wear sheet', () => {
  it('is written at Enter, which goes straight down its column', () => {
    show(<Grid view={wearBuild()} items={['valve-margin']} />);
    type('Margin 1I, Margin', '1,1 1.05');
    expect(lines()).toMatchObject([
      {
        item: 'valve-margin',
        place: '1I',
        field: 'value',
        values: [1.1, 1.05],
        how: 'measured',
        set: 'found',
      },
    ]);
    expect(document.activeElement).toBe(cell('Margin 1E, Margin'));
    fireEvent.keyDown(document.activeElement!, { key: 'ArrowUp' });
    settle();
    expect(document.activeElement).toBe(cell('Margin 1I, Margin'));
    expect(put()).toHaveLength(1);
  });

  it('shows what it comes to while it is typed, before it is written', () => {
    show(<Grid view={wearBuild()} items={['stem-guide']} />);
    fireEvent.change(cell('Stem in guide 1I, Stem'), { target: { value: '6.95' } });
    fireEvent.change(cell('Stem in guide 1I, Guide'), { target: { value: '7.04' } });
    const row = screen.getByRole('row', { name: /^1I/ });
    expect(row.textContent).toContain('replace');
    expect(row.textContent).toContain('clearance 0.09');
    // going away from it wrote nothing that was not left or entered
    expect(lines()).toEqual([]);
  });

  it('asks about a figure far from its like ones, and writes what was meant, or what was typed', () => {
    show(<Grid view={wearBuild()} items={['valve-margin']} />);
    type('Margin 1I, Margin', '11');
    expect(screen.getByRole('alert').textContent).toContain('new it is 1.20 mm');
    expect(put()).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'Use 1.10' }));
    type('Margin 2I, Margin', '12');
    fireEvent.click(screen.getByRole('button', { name: 'Keep as typed' }));
    expect(lines().map(({ place, values, doubtKept }) => [place, values, doubtKept])).toEqual([
      ['1I', [1.1], false],
      ['2I', [12], true],
    ]);
  });

  it('takes a word for a figure, and says where it is neither', () => {
    show(<Grid view={wearBuild()} items={['valve-margin']} />);
    type('Margin 1I, Margin', 'sound');
    type('Margin 1E, Margin', 'thick');
    expect(screen.getByRole('alert').textContent).toContain('is no figure');
    expect(lines()).toMatchObject([{ how: 'sound', values: [] }]);
    // what was not understood stays where it was typed
    expect(cell('Margin 1E, Margin')).toHaveProperty('value', 'thick');
    expect(Object.values(store.getState().drafts)).toContain('thick');
  });

  it('is taken back by a blank, and shows what another hand had written before', () => {
    const wear = [
      entry([figure('valve-margin', '1I', 'value', [1])], 'Osk Velland', 'e1'),
      entry([figure('valve-margin', '1I', 'value', [1.1])], 'Tobin Hask', 'e2', '2026-11-20T11:00:00.000Z'),
    ];
    show(<Grid view={wearBuild({ wear })} items={['valve-margin']} />);
    expect(cell('Margin 1I, Margin')).toHaveProperty('value', '1.10');
    expect(screen.getByText('1.00 by Osk Velland before')).toBeTruthy();
    type('Margin 1I, Margin', '');
    expect(lines()).toMatchObject([{ how: 'taken-back', values: [] }]);
  });

  it('is only looked at by a viewer, and where the build is signed off', async () => {
    await signIn('viewer');
    const { unmount } = show(<Grid view={wearBuild()} items={['valve-margin']} />);
    expect(cell('Margin 1I, Margin')).toHaveProperty('disabled', true);
    unmount();
    await signIn('bench');
    const signOff = { by: 'Ilse Marrand', at, usage: 1, statement: '', accepted: [] };
    show(<Grid view={wearBuild({ signOff })} items={['valve-margin']} />);
    expect(cell('Margin 1I, Margin')).toHaveProperty('disabled', true);
  });
});

describe('what is pending', () => {
  it('is laid into the build it belongs to, entry by entry', () => {
    const view = wearBuild();
    show(<Grid view={view} items={['valve-margin']} />);
    type('Margin 1I, Margin', '1.1');
    settle();
    const laid = withPending(view, store.getState().outbox.items);
    expect(laid.wear).toMatchObject([{ by: 'Tobin Hask', lines: [{ place: '1I', values: [1.1] }] }]);
    expect(wearSheetOf(laid.wear, []).current.size).toBe(1);
    expect(view.wear).toEqual([]);
  });
});

describe('what becomes of a part', () => {
  it('is decided with a word, which stands above what was measured', () => {
    const view = wearBuild({ wear: [entry([figure('valve-margin', '1I', 'value', [0.5])])] });
    const fate = {
      ...{
        part: 'valve' as const,
        place: '1I',
        verdict: 'replace' as const,
        decided: null,
        used: 1.4,
        measureNew: [],
      },
      reasons: ['Margin 1I: 140 % of its allowance'],
    };
    function Summary() {
      return <WearSummary build={view} fates={[fate]} work={useWear(view)} />;
    }
    show(<Summary />);
    fireEvent.click(screen.getByRole('button', { name: 'Decide about Valve 1I' }));
    const form = screen.getByRole('form', { name: 'What becomes of Valve 1I' });
    fireEvent.change(within(form).getByLabelText('It is'), { target: { value: 'replace' } });
    fireEvent.change(within(form).getByLabelText('The new one is'), { target: { value: 'ordered' } });
    fireEvent.change(within(form).getByLabelText('Why'), { target: { value: 'too thin to face' } });
    fireEvent.submit(form);
    expect(lines()).toEqual([
      {
        kind: 'fate',
        part: 'valve',
        place: '1I',
        fate: 'replace',
        order: 'ordered',
        reason: 'too thin to face',
      },
    ]);
  });
});

describe('a CSV of readings', () => {
  const { pattern } = build().sheet;

  it('is written and read back the same', () => {
    const all = [
      figure('valve-margin', '1I', 'value', [1.1, 1.05]),
      { ...figure('stem-guide', '2E', 'stem', []), how: 'sound' as const },
      { ...figure('seat-width', '3I', 'value', [1.4]), set: 'fitted' as const },
    ];
    const text = writeWearCsv(wearSheetOf([{ id: '1', by: 'x', at, lines: all }], []));
    const read = readWearCsv(text, pattern);
    if ('error' in read) throw new Error(read.error);
    expect(read.bad).toEqual([]);
    expect(read.lines.map(({ item, place, values, how, set }) => [item, place, values, how, set])).toEqual([
      ['valve-margin', '1I', [1.1, 1.05], 'measured', 'found'],
      ['stem-guide', '2E', [], 'sound', 'found'],
      ['seat-width', '3I', [1.4], 'measured', 'fitted'],
    ]);
  });

  it('has its bad lines named by their number, and the rest taken', () => {
    const read = readWearCsv(
      [
        'What;Place;Figure;Readings',
        'valve-margin;1i;value;1,1',
        'valve-margin;9I;value;1.1',
        'rocker-arm;1I;value;1.1',
        'stem-guide;1I;shim;6.9',
        'valve-margin;2I;value;thick',
        'valve-margin;3I;value;',
        '"guide-wobble";"1I";"height";"10 11"',
      ].join('\r\n'),
      pattern,
    );
    if ('error' in read) throw new Error(read.error);
    expect(read.lines).toMatchObject([{ place: '1I', values: [1.1] }]);
    expect(read.bad.map(({ line }) => line)).toEqual([3, 4, 5, 6, 7, 8]);
    expect(read.bad.map(({ why }) => why).join('\n')).toMatch(
      /no 9I[^]*nothing that is measured[^]*no “shim”[^]*no figure[^]*no reading[^]*one figure/,
    );
  });

  it('has what looks like a slip told apart, by the nominal figure or by its like ones', () => {
    const sheet = wearSheetOf([], LIMITS as never);
    const margin = [
      figure('valve-margin', '1I', 'value', [1.1]),
      figure('valve-margin', '1E', 'value', [11]),
    ];
    const stems = ['1I', '2I', '3I'].map((place, index) =>
      figure('stem-guide', place, 'stem', [[6.97, 69.7, 6.98][index]!]),
    );
    const warnings = warningsIn([...margin, ...stems], sheet, pattern);
    expect(warnings.map(({ line, warning }) => [line.item, line.place, warning.suggestion])).toEqual([
      ['valve-margin', '1E', 1.1],
      ['stem-guide', '2I', 6.97],
    ]);
  });

  it('has every line that does not fit named by the number an editor shows for it', () => {
    const read = readWearCsv(
      [
        'what,place,figure,readings,of',
        'valve-margin,1I,value,1.1,',
        '',
        'valve-margin,2I,value,1,1',
        'valve-margin,3I,value,"1.1\n1.2",',
        'valve-margin,1I,value,1.2,found',
        'valve-margin,4I,value,1.2,new',
        '"valve-margin,5I,value,1.2,',
      ].join('\n'),
      pattern,
    );
    if ('error' in read) throw new Error(read.error);
    expect(read.lines.map(({ place, values }) => [place, ...values])).toEqual([
      ['1I', 1.1],
      ['3I', 1.1, 1.2],
    ]);
    expect(read.bad.map(({ line, why }) => `${line}: ${why}`).join('\n')).toMatch(
      /^3: nothing is on it\n4: a figure is of what was found, or fitted\n7: line 2 has this field already\n8: a figure is of[^]*9: a quote is opened/,
    );
    const over = readWearCsv('what,place,figure,readings\nvalve-margin,2I,value,1,1\n', pattern);
    expect(over).toMatchObject({ bad: [{ line: 2, why: expect.stringContaining('goes in quotes') }] });
    expect(readWearCsv('what,place,figure,figure,readings\n', pattern)).toMatchObject({
      error: expect.stringContaining('twice'),
    });
  });

  it('with other columns is refused as a whole, with what it needs', () => {
    expect(readWearCsv('a,b\n1,2', pattern)).toMatchObject({ error: expect.stringContaining('readings') });
    expect(readWearCsv('', pattern)).toHaveProperty('error');
  });
});

describe('a parts list as CSV', () => {
  it('has what is replaced and what is wanted, each with its state and why', () => {
    const ledger = [
      {
        ...{ id: 'l', by: 'x', at },
        lines: [
          {
            ...{
              key: 'wanted stem seals',
              group: 'wanted',
              name: 'Stem seals',
              place: '',
              expected: 12,
              out: 8,
            },
            ...{ in: null, note: '', dropped: false },
          },
        ],
      },
    ] as unknown as BuildView['ledger'];
    const worn = {
      ...{
        part: 'valve' as const,
        place: '1E',
        verdict: 'replace' as const,
        decided: null,
        used: 1.2,
        measureNew: [],
      },
      reasons: ['Margin 1E: 120 % of its allowance', 'Cracked, at the edge'],
    };
    expect(writePartsCsv({ sheet: build().sheet, ledger }, [worn]).split('\r\n')).toEqual([
      'part,place,count,state,why',
      'Valve,1E,1,to decide,"Margin 1E: 120 % of its allowance; Cracked, at the edge"',
      'Stem seals,,8,in hand,',
      'Stem seals,,4,to order,',
    ]);
  });
});

describe('a picture', () => {
  it('is told by how its file begins, whatever it is called', () => {
    const starts = { png: [0x89, 0x50, 0x4e, 0x47], jpeg: [0xff, 0xd8, 0xff, 0xe0] };
    for (const start of Object.values(starts)) expect(whyNoPicture(new Uint8Array(start))).toBeNull();
    expect(
      whyNoPicture(new Uint8Array([...'RIFF....WEBP'].map((letter) => letter.charCodeAt(0)))),
    ).toBeNull();
    expect(whyNoPicture(new Uint8Array([0x25, 0x50, 0x44, 0x46]))).toMatch(/PNG, JPEG and WebP/);
    expect(whyNoPicture(new Uint8Array())).toBe('is empty');
    expect(atob(base64Of(new Uint8Array(70_000).fill(65)))).toHaveLength(70_000);
  });
});

describe('a count of parts', () => {
  const line = {
    ...{ key: 'cover bolt, long', group: 'cover', name: 'Cover bolt, long', place: '', expected: 2 },
    ...{ out: 2, in: null, note: '', dropped: false },
  };
  const ledger = (...rows: object[]) =>
    [{ id: 'l', by: 'x', at, lines: rows }] as unknown as BuildView['ledger'];

  it('takes what lies there as listed at a word, and exceptions one by one', () => {
    show(<CountOut build={build({ stage: 'open-up' })} />);
    fireEvent.change(screen.getByRole('textbox', { name: 'Cover bolt, long, off' }), {
      target: { value: '1' },
    });
    fireEvent.blur(screen.getByRole('textbox', { name: 'Cover bolt, long, off' }));
    fireEvent.click(screen.getByRole('button', { name: 'All of it as listed' }));
    const [one, all] = put().map(({ body }) => (body as { lines: (typeof line)[] }).lines);
    expect(one).toMatchObject([{ name: 'Cover bolt, long', out: 1 }]);
    expect(all!.every(({ out, expected }) => out === expected)).toBe(true);
    expect(all!.length).toBeGreaterThan(2);
  });

  it('is no count where it is not a whole number', () => {
    show(<CountOut build={build({ stage: 'open-up' })} />);
    const field = screen.getByRole('textbox', { name: 'Cover, off' });
    fireEvent.change(field, { target: { value: '1.5' } });
    fireEvent.blur(field);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(put()).toEqual([]);
  });

  it('names what does not balance, and nothing that was not counted out', () => {
    const { unmount } = show(<CountIn build={build({ stage: 'close', ledger: ledger(line) })} />);
    expect(screen.queryByRole('alert')).toBeNull();
    unmount();
    show(<CountIn build={build({ stage: 'close', ledger: ledger({ ...line, in: 1 }) })} />);
    expect(screen.getByRole('alert').textContent).toContain('Cover bolt, long: 1 missing');
  });
});

describe('what a count says of the pattern', () => {
  it('is kept by a tap, and asked for no more', () => {
    const entry = {
      ...{ id: 'e', by: 'Osk Velland', at: new Date().toISOString() },
      lines: [
        {
          ...{
            key: 'dowel',
            group: 'cover',
            name: 'Dowel',
            place: 'front',
            way: 'unsaid',
            expected: 2,
            out: 2,
          },
          ...{ in: null, note: '', dropped: false },
        },
      ],
    } as unknown as BuildView['ledger'][number];
    const view = build({ stage: 'open-up', ledger: [entry] });
    const shown = show(<CountOut build={view} />);
    expect(screen.getByText('Dowel front 2')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^Keep Dowel front 2 for every/ }));
    const [sent] = put();
    expect(sent).toMatchObject({
      kind: 'pattern-parts',
      body: { lines: [{ key: 'dowel', expected: 2, dropped: false }] },
    });
    shown.unmount();
    const kept = {
      id: 'k',
      sheetId: 's',
      by: 'Osk Velland',
      at: '',
      lines: (sent!.body as { lines: never[] }).lines,
    };
    show(<CountOut build={build({ stage: 'open-up', ledger: [entry], 'pattern-parts': [kept] })} />);
    expect(screen.queryByText(/Otherwise than listed/)).toBeNull();
  });

  it('is nothing of what stays on for this job', () => {
    show(<CountOut build={build({ stage: 'open-up' })} />);
    fireEvent.click(screen.getByRole('button', { name: 'All of it stays on' }));
    expect(
      (put()[0]!.body as { lines: LedgerLine[] }).lines.every(({ dropped, note }) => dropped && note !== ''),
    ).toBe(true);
    const lines = (put()[0]!.body as { lines: LedgerLine[] }).lines;
    const entry = {
      id: 'e',
      by: 'x',
      at: new Date().toISOString(),
      lines,
    } as unknown as BuildView['ledger'][number];
    cleanup();
    show(<CountOut build={build({ stage: 'open-up', ledger: [entry] })} />);
    fireEvent.click(screen.getByRole('button', { name: 'Put it back on the list' }));
    const back = (put().at(-1)!.body as { lines: LedgerLine[] }).lines;
    expect(back).toHaveLength(lines.length);
    expect(back.every(({ dropped, note }) => !dropped && note === '')).toBe(true);
  });
});

const knownOn = (view: BuildView) => ({ buildId: view.id, sheet: view.sheet, known: view['know-how'] });

describe('what the shop has learned', () => {
  const note: BuildView['know-how'][number] = {
    ...{ id: 'k', sheetId: 'sh', text: 'The breather comes off first', by: 'Osk Velland', at },
    ...{ stage: 'open-up', dropped: false, ...{ about: 'stage', crankAngle: null }, version: 1 },
  };

  it('is shown at its stage, to be reworded by a lead alone', async () => {
    const view = build({ 'know-how': [note, { ...note, id: 'gone', text: 'Gone', dropped: true }] });
    const { unmount } = show(<KnowHow {...knownOn(view)} stage="open-up" />);
    expect(screen.getByText('The breather comes off first')).toBeTruthy();
    expect(screen.queryByText('Gone')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
    unmount();
    await signIn('lead');
    show(<KnowHow {...knownOn(view)} stage="open-up" />);
    expect(screen.getByRole('button', { name: 'Edit' })).toBeTruthy();
  });

  it('of its cover stands wherever that comes off or goes on; of a stop there, with a line for the next', async () => {
    const ofCover = { ...note, about: 'cover' as const };
    const view = build({ 'know-how': [ofCover] });
    for (const [stage, there] of [
      ['open-up', true],
      ['close', true],
      ['wear', false],
    ] as const) {
      const { unmount } = show(<KnowHow {...knownOn(view)} stage={stage} />);
      expect(screen.queryByText('The breather comes off first') !== null, stage).toBe(there);
      unmount();
    }
    // a lead finds what stands at a stop, to word it again or take it away
    await signIn('lead');
    const ofStop = build({ 'know-how': [{ ...note, about: 'stop' as const, crankAngle: 90 }] });
    const { unmount: gone } = show(<KnowHow {...knownOn(ofStop)} stage="open-up" />);
    expect(screen.getByText('At 90°:')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Edit' })).toBeTruthy();
    gone();
    const atStop = { ...note, about: 'stop' as const, crankAngle: 120, text: 'The dot is the pump’s' };
    const stop = (angle: number) => (
      <StopNotes buildId="b" known={[atStop, ofCover]} stage="prove" angle={angle} enabled />
    );
    const { unmount } = show(stop(480));
    expect(screen.queryByText(/The dot/)).toBeNull();
    unmount();
    show(stop(120));
    expect(screen.getByText(/The dot is the pump’s/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Keep a note at this stop' }));
    fireEvent.change(screen.getByLabelText('Note at this stop'), { target: { value: 'Use the mirror' } });
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(put()).toMatchObject([
      { kind: 'know-how', body: { stage: 'prove', about: 'stop', crankAngle: 120, text: 'Use the mirror' } },
    ]);
  });

  it('is nothing at another stage', () => {
    expect(
      show(<KnowHow {...knownOn(build({ 'know-how': [note] }))} stage="wear" />).container.textContent,
    ).toBe('');
  });
});

describe('the lash budget', () => {
  const SHIM: Means = {
    ...{ kind: 'shim', seat: 'under-bucket', sizes: { from: 2, to: 3, step: 0.05 } },
    ...{ diameter: 9.5, marking: '', seatOffset: null },
  };
  const found = (means: Means, change: Partial<BuildView> = {}) =>
    sheetWith(
      build(
        {
          stage: 'head-work',
          rounds: [round({ readings: [reading('1I', 0.22, 0.24, 'in-spec')] })],
          ...change,
        },
        means,
      ),
      [],
    );
  const cut = (depth: number) =>
    [
      {
        ...{ id: 'h', by: 'x', at },
        lines: [
          {
            ...{ step: 's', valve: '1I', operation: 'seat-cut', depth, normalDepth: null, seatAngle: null },
            ...{ done: null, dropped: false },
          },
        ],
      },
    ] as unknown as BuildView['headwork'];
  const piece = [entry([figure('piece-in', '1I', 'value', [2.1])])];

  it('names the valves that nothing made will bring in, before anybody cuts', () => {
    show(<BudgetPanel stage="head-work" build={found(SHIM, { headwork: cut(0.3), wear: piece })} />);
    expect(screen.getByRole('alert').textContent).toContain(
      'One valve will not come in with anything that is made: 1I',
    );
    expect(screen.getByRole('list', { name: 'What would bring 1I in' }).textContent).toMatch(/\smm less/);
  });

  it('says where it fits, and where a piece is not known', () => {
    const { unmount } = show(
      <BudgetPanel stage="head-work" build={found(SHIM, { headwork: cut(0.05), wear: piece })} />,
    );
    expect(screen.queryByRole('alert')).toBeNull();
    expect(screen.getAllByText(/piece not known/).length).toBeGreaterThan(0);
    unmount();
    // nothing is said of every gap where one was not measured, or nobody knows how far its screw stands out
    const { container } = show(
      <BudgetPanel stage="head-work" build={found(SCREW, { headwork: cut(0.05) })} />,
    );
    expect(screen.queryByText('Every gap comes in with what is made.')).toBeNull();
    expect(container.textContent).toMatch(/not known at 1E \(not measured\)/);
    expect(container.textContent).toMatch(/How much thread shows is not known at 1I/);
    cleanup();
    const points = lashPoints(build({}, SCREW).sheet.pattern).map(({ key }) => key);
    const readings = [...points].map((key) => reading(key, 0.22, 0.24, 'in-spec'));
    const wear = [entry([...points].map((key) => figure('screw-standout', key, 'value', [6])))];
    show(
      <BudgetPanel
        stage="head-work"
        build={found(SCREW, { headwork: cut(0.05), rounds: [round({ readings })], wear })}
      />,
    );
    expect(screen.getByText('Every gap comes in with what is made.')).toBeTruthy();
  });

  it('plans a piece of work at every valve that is meant, and asks about a cut that is too deep', () => {
    show(<BudgetPanel stage="head-work" build={found(SHIM)} />);
    const form = screen.getByRole('form', { name: 'Plan a piece of work' });
    fireEvent.change(within(form).getByLabelText('At'), { target: { value: 'exhaust' } });
    fireEvent.change(within(form).getByLabelText('How deep, mm'), { target: { value: '1.5' } });
    fireEvent.submit(form);
    expect(put()).toEqual([]);
    fireEvent.click(within(form).getByRole('button', { name: 'Use 0.15 mm' }));
    fireEvent.submit(form);
    const [planned] = put();
    const written = (planned!.body as { lines: { valve: string; depth: number }[] }).lines;
    expect(written.map(({ valve }) => valve)).toEqual(['1E', '2E', '3E', '4E', '5E', '6E']);
    expect(new Set(written.map(({ depth }) => depth))).toEqual(new Set([0.15]));
  });

  it('takes no operation that touches no gap of the engine', () => {
    show(<BudgetPanel stage="head-work" build={found(SHIM)} />);
    const work = screen.getByLabelText('Work');
    const kinds = [...work.querySelectorAll('option')].map(({ value }) => value);
    expect(kinds).not.toContain('head-skim');
    expect(screen.getByText(/skimming it moves no gap/)).toBeTruthy();
  });
});
