// @vitest-environment happy-dom
// Long because what is drawn of an open head is tried on one build.
import 'fake-indexeddb/auto';
import { fireEvent, screen, within } from '@testing-library/react';
import { boltPlaces, tightenOrder } from '@zero-lash/core/assembly';
import { expectedParts, ledgerOf } from '@zero-lash/core/parts';
import { wearSheetOf, type FigureLine, type MarkLine, type WearLine } from '@zero-lash/core/wear';
import { describe, expect, it } from 'vitest';
import { api } from '../app/api.ts';
import { store } from '../app/store.ts';
import { SlackenOrder } from '../assembly/SlackenOrder.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { BoltDrawing } from '../drawings/BoltDrawing.tsx';
import { CamDrawing } from '../drawings/CamDrawing.tsx';
import { GapSteps } from '../drawings/GapSteps.tsx';
import { PressureBars } from '../drawings/PressureBars.tsx';
import { TrayDrawing } from '../drawings/TrayDrawing.tsx';
import { CountOut } from '../parts/CountOut.tsx';
import { Seals } from '../wear/Seals.tsx';
import { Wanted } from '../parts/Wanted.tsx';
import { MarksSeen } from '../wear/Marks.tsx';
import { useWear } from '../wear/useWear.ts';
import { Photographs } from '../photographs/Photographs.tsx';
import { BetweenBuilds } from '../wear/BetweenBuilds.tsx';
import { Pressures } from '../wear/Pressures.tsx';
import { WearSheetWork } from '../wear/WearSheetWork.tsx';
import { at, atTheBench, build, put, show, showUnfolded, signIn } from './shownBench.tsx';

atTheBench();

const figure = (item: string, place: string, field: string, values: number[]): FigureLine => ({
  ...{ kind: 'figure', item, place, field, values, asTyped: values.join(' ') },
  ...{ how: 'measured', set: 'found', doubtKept: false },
});
const entry = (...lines: WearLine[]) =>
  ({ id: 'e', by: 'Osk Velland', at, lines }) as unknown as BuildView['wear'][number];
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
  { ...NO, part: 'compression', limit: 9.5, unit: 'bar' },
  { ...NO, part: 'compression-spread', limit: 12, unit: '%' },
  { ...NO, part: 'leak-down', limit: 20, unit: '%' },
  { ...NO, part: 'lobe-lift', nominal: 8.2, limit: 8.05 },
  { ...NO, part: 'valve-margin', nominal: 1.2, limit: 0.7 },
];
const withLimits = (change: Partial<BuildView>): BuildView => {
  const view = build(change);
  return { ...view, sheet: { ...view.sheet, wearLimits: LIMITS } as unknown as BuildView['sheet'] };
};
const lines = () => {
  fireEvent.click(document.body);
  return put().flatMap(({ body }) => (body as { lines: WearLine[] }).lines);
};

describe('pressures at take-in', () => {
  const wear = [
    entry(
      ...[12, 11.8, 11.9, 9, 11.7, 11.6].map((bar, index) =>
        figure('compression', String(index + 1), 'value', [bar]),
      ),
    ),
  ];

  it('are drawn by cylinder and judged beside one another: a low one is found out about, not replaced', () => {
    show(<Pressures build={withLimits({ stage: 'take-in', wear })} />);
    expect(screen.getByRole('img', { name: /cylinder 4: 9/ })).toBeTruthy();
    const compression = within(screen.getByRole('table', { name: 'Compression' }));
    expect(compression.getByRole('row', { name: /^4/ }).textContent).toContain('find out why');
    expect(compression.getByRole('row', { name: /^1/ }).textContent).toContain('in order');
  });

  it('say where the air escapes, and take that back', () => {
    const mark: MarkLine = {
      ...{
        kind: 'mark',
        part: 'cylinder',
        place: '4',
        damage: 'air-exhaust',
        note: 'at the tailpipe',
        gone: false,
      },
    };
    show(
      <Pressures build={withLimits({ stage: 'take-in', wear: [...wear, { ...entry(mark), id: 'm' }] })} />,
    );
    const list = screen.getByRole('list', { name: 'Where air escapes' });
    expect(list.textContent).toContain('air escapes at the exhaust, at the tailpipe');
    fireEvent.click(within(list).getByRole('button', { name: 'Clear' }));
    expect(lines()).toEqual([{ ...mark, gone: true }]);
  });

  it('are those after closing where that is what is chosen', () => {
    show(<Pressures build={withLimits({ stage: 'close', wear })} />);
    fireEvent.change(screen.getByRole('textbox', { name: 'Compression 4, Pressure, fitted' }), {
      target: { value: '11.5' },
    });
    fireEvent.keyDown(screen.getByRole('textbox', { name: 'Compression 4, Pressure, fitted' }), {
      key: 'Enter',
    });
    expect(lines()).toMatchObject([{ item: 'compression', place: '4', set: 'fitted', values: [11.5] }]);
  });

  it('are not drawn before there are any', () => {
    const { container } = show(<PressureBars bars={[{ cylinder: '1', before: null, after: null }]} />);
    expect(container.querySelector('svg')).toBeNull();
  });
});

describe('the wear sheet', () => {
  it('shows what has a limit or was seen, and the rest at a word', () => {
    show(<WearSheetWork build={withLimits({ stage: 'wear' })} />);
    fireEvent.click(screen.getByRole('tab', { name: 'Valves and seats' }));
    expect(screen.getByRole('table', { name: /Margin/ })).toBeTruthy();
    expect(screen.queryByRole('table', { name: /Stem rocks/ })).toBeNull();
    fireEvent.change(screen.getByLabelText('What is shown'), { target: { value: 'all' } });
    expect(screen.getByRole('table', { name: /Stem rocks/ })).toBeTruthy();
    expect(screen.getByRole('table', { name: /Leak test/ })).toBeTruthy();
  });

  it('has no page for what an engine has not', () => {
    show(<WearSheetWork build={withLimits({ stage: 'wear' })} />);
    const pages = screen.getAllByRole('tab').map(({ textContent }) => textContent);
    expect(pages).toContain('Followers');
    expect(pages).not.toContain('Rockers');
  });

  it('marks damage at its place, and says what a hollow does to a blade', () => {
    const hollow: MarkLine = {
      ...{ kind: 'mark', part: 'follower', place: '2E', damage: 'hollow', note: '', gone: false },
    };
    show(<WearSheetWork build={withLimits({ stage: 'wear', wear: [entry(hollow)] })} />);
    expect(screen.getByText(/A flat blade bridges the hollow: at 2E/)).toBeTruthy();
    const form = screen.getByRole('form', { name: 'Damage seen' });
    fireEvent.change(within(form).getByLabelText('What'), { target: { value: 'cracked' } });
    fireEvent.change(within(form).getByLabelText('Note'), { target: { value: ' across the nose ' } });
    fireEvent.submit(form);
    expect(lines()).toMatchObject([
      { kind: 'mark', part: 'cam', damage: 'cracked', note: 'across the nose' },
    ]);
  });

  it('is looked at by a viewer, who writes nothing', async () => {
    await signIn('viewer');
    show(<WearSheetWork build={withLimits({ stage: 'wear' })} />);
    expect(screen.queryByRole('form', { name: 'Damage seen' })).toBeNull();
    expect(screen.queryByRole('button', { name: /Read figures/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Save as CSV' })).toBeTruthy();
  });
});

describe('between builds', () => {
  it('says how fast a place wears, and when it meets its limit', async () => {
    const view = withLimits({
      stage: 'wear',
      id: 'now',
      wear: [entry(figure('valve-margin', '1E', 'value', [0.9]))],
    });
    const earlier = [
      {
        buildId: 'then',
        number: 1,
        running: 50,
        entries: [entry(figure('valve-margin', '1E', 'value', [1]))],
      },
      { buildId: 'now', number: 2, running: 100, entries: [] },
    ];
    await store.dispatch(
      api.util.upsertQueryData('wearOfEngine' as never, 'e' as never, earlier as never) as never,
    );
    show(<BetweenBuilds build={view} />);
    const row = await screen.findByRole('row', { name: /Margin 1E/ });
    expect(row.textContent).toContain('1.00 → 0.90 mm');
    expect(row.textContent).toContain('2.00 mm in 1,000 hours');
    expect(row.textContent).toContain('at 200, 100 hours from here');
  });
});

describe('spares and tools', () => {
  it('are counted as they lie there, and what is missing is to be ordered', () => {
    show(<Wanted build={build({ stage: 'take-in' })} />);
    const seals = screen.getByRole('textbox', { name: 'Stem seals, here' });
    fireEvent.change(seals, { target: { value: '8' } });
    fireEvent.blur(seals);
    fireEvent.change(screen.getByLabelText('Also wanted'), { target: { value: 'Bent key' } });
    fireEvent.submit(screen.getByRole('form', { name: 'Something else that is wanted' }));
    expect(lines()).toMatchObject([
      { name: 'Stem seals', expected: 12, out: 8 },
      { name: 'Bent key', group: 'wanted', out: null },
    ]);
  });

  it('name what is missing once it was counted', () => {
    const line = {
      ...{ key: 'wanted stem seals', group: 'wanted', name: 'Stem seals', place: '', expected: 12, out: 8 },
      ...{ in: null, note: '', dropped: false },
    };
    const ledger = [{ id: 'l', by: 'x', at, lines: [line] }] as unknown as BuildView['ledger'];
    show(<Wanted build={build({ stage: 'take-in', ledger })} />);
    expect(screen.getByText(/To order: Stem seals 4/)).toBeTruthy();
  });
});

describe('the drawings of an open head', () => {
  const { pattern } = build().sheet;

  it('have every lobe and journal of a cam, with what it comes to', () => {
    const sheet = wearSheetOf(
      [
        {
          ...{ id: '1', by: 'x', at },
          lines: [figure('lobe', '2E', 'height', [36]), figure('lobe', '2E', 'base', [28])],
        },
      ],
      LIMITS as never,
    );
    show(<CamDrawing pattern={pattern} sheet={sheet} />);
    expect(screen.getByRole('img', { name: 'lobe 2E: replace' })).toBeTruthy();
    expect(screen.getByRole('img', { name: 'lobe 1I: not measured' })).toBeTruthy();
    expect(screen.getAllByRole('img', { name: /^journal/ })).toHaveLength(7);
  });

  it('have a tray place for each part, and say how many are counted', () => {
    const ledger = ledgerOf(expectedParts(pattern), new Map()).map((line, index) =>
      line.group === 'cover' && index === 0 ? { ...line, out: 1 } : line,
    );
    show(<TrayDrawing ledger={ledger} group="cover" />);
    expect(screen.getByRole('img', { name: 'Tray of 4 places, 1 counted' })).toBeTruthy();
  });

  it('number the bolts in the order they are slackened', () => {
    const bolts = boltPlaces(pattern, 'A');
    const { slacken } = tightenOrder({ bolts });
    show(<BoltDrawing bolts={bolts} order={slacken} label="Head" />);
    const numbers = [...document.querySelectorAll('svg g text')].map(({ textContent }) =>
      Number(textContent),
    );
    expect(numbers.toSorted((a, b) => a - b)).toEqual(bolts.map((_, index) => index + 1));
  });

  it('walk a gap from as found to before setting, and show where a valve would be held open', () => {
    show(
      <GapSteps
        label="Gap of 1I"
        steps={[
          { label: 'as found', lo: 0.14, hi: 0.16, done: true },
          { label: 'Seat cut', lo: -0.06, hi: -0.04, done: false },
        ]}
        min={0.11}
        max={0.19}
        target={0.15}
        figure={(mm) => mm.toFixed(2)}
      />,
    );
    expect(
      screen.getByRole('img', { name: 'Gap of 1I: as found, 0.14 to 0.16; Seat cut, -0.06 to -0.04' }),
    ).toBeTruthy();
    const bars = [...document.querySelectorAll('svg g rect')];
    expect(bars.map((bar) => bar.getAttribute('stroke-dasharray'))).toEqual([null, '4 3']);
    expect(bars[1]!.getAttribute('stroke')).toContain('tight');
  });
});

describe('the order of slackening', () => {
  it('is what the sheet says, turned round, and one worked out where it says nothing', () => {
    const view = build({ stage: 'open-up' });
    const torques = [
      { fastening: 'Cam caps', steps: '8 Nm', order: 'from the middle out', rows: [], sequence: [] },
    ];
    showUnfolded(
      <SlackenOrder
        what="train"
        build={{ ...view, sheet: { ...view.sheet, torques } as BuildView['sheet'] }}
      />,
    );
    expect(
      screen.getByText(/Cam caps, tightened from the middle out: slackened the other way round/),
    ).toBeTruthy();
    expect(screen.getByText(/the manual governs/)).toBeTruthy();
  });
});

describe('the order of slackening, with the sheet’s own bolts', () => {
  const drawn = (sequence: number[]) => {
    const view = build({ stage: 'open-up' });
    const torques = [{ fastening: 'Head bolts', steps: '20 Nm', order: '', rows: [2, 2], sequence }];
    showUnfolded(
      <SlackenOrder
        what="train"
        build={{ ...view, sheet: { ...view.sheet, torques } as BuildView['sheet'] }}
      />,
    );
    return screen.getByRole('img').getAttribute('aria-label');
  };
  it('is the maker’s, the other way round', () => {
    expect(drawn([1, 4, 2, 3])).toMatch(/: 3, 2, 4, 1$/);
    expect(screen.getByText(/the maker’s order of tightening, the other way round/)).toBeTruthy();
  });
  it('is worked out from where they stand where the maker gives none', () => {
    expect(drawn([])).toMatch(/^Head bolts, bolts numbered .*: \d, \d, \d, \d$/);
    expect(screen.getByText(/worked out from where the sheet says its bolts stand/)).toBeTruthy();
  });
});

describe('gaskets and seals', () => {
  const fate = (place: string, kept: 'keep' | 'replace'): BuildView['wear'][number] => ({
    ...{ id: place, by: 'Osk Velland', at },
    lines: [{ kind: 'fate', part: 'seal', place, fate: kept, order: 'none', reason: '' }],
  });
  it('are used again or replaced, one by one, and unsaid by a second tap', async () => {
    await signIn('bench');
    show(<Seals build={build({ stage: 'open-up', wear: [fate('Stem seals', 'replace')] })} />);
    const again = screen.getByRole('button', { name: 'Cover gasket is used again' });
    expect(again.getAttribute('aria-pressed')).toBe('false');
    fireEvent.click(again);
    fireEvent.click(screen.getByRole('button', { name: 'Stem seals is replaced' }));
    expect(put().map(({ body }) => (body as { lines: unknown[] }).lines[0])).toEqual([
      { kind: 'fate', part: 'seal', place: 'Cover gasket', fate: 'keep', order: 'none', reason: '' },
      { kind: 'fate', part: 'seal', place: 'Stem seals', fate: 'undecided', order: 'none', reason: '' },
    ]);
  });
  it('are also those the sheet does not list', async () => {
    await signIn('bench');
    show(<Seals build={build({ stage: 'open-up', wear: [fate('Oil ring', 'keep')] })} />);
    expect(screen.getByRole('button', { name: 'Oil ring is used again' }).getAttribute('aria-pressed')).toBe(
      'true',
    );
    fireEvent.change(screen.getByLabelText('Another seal, to be replaced'), {
      target: { value: ' Nozzle ring ' },
    });
    fireEvent.submit(screen.getByRole('form', { name: 'A seal that is not on the list' }));
    expect(put()).toMatchObject([
      { body: { lines: [{ place: 'Nozzle ring', fate: 'replace', order: 'to-order' }] } },
    ]);
  });
});

describe('which way round a cap sits', () => {
  it('is said for all of them at once, and for one by itself', async () => {
    await signIn('bench');
    show(<CountOut build={build({ stage: 'open-up' })} />);
    fireEvent.change(screen.getByLabelText('Group'), { target: { value: 'caps' } });
    fireEvent.click(screen.getByRole('button', { name: 'Every arrow looks to the front' }));
    const [all] = put().map(({ body }) => (body as { lines: { name: string; way: string }[] }).lines);
    expect(all!.length).toBeGreaterThan(3);
    expect(all!.every(({ name, way }) => name === 'Cam cap' && way === 'front')).toBe(true);
    fireEvent.change(screen.getAllByLabelText(/, its arrow looks$/)[0]!, { target: { value: 'rear' } });
    expect(put().at(-1)).toMatchObject({ body: { lines: [{ name: 'Cam cap', way: 'rear' }] } });
  });
});

describe('a photograph of damage', () => {
  it('stands with the damage it shows, and with no other', async () => {
    await signIn('bench');
    const mark = (place: string) =>
      ({ kind: 'mark', part: 'cam', place, damage: 'scuffing', note: '', gone: false }) as const;
    const wear = [{ id: 'w', by: 'Osk Velland', at, lines: [mark('2E'), mark('3E')] }];
    const photographs = [{ ...PICTURE, shows: 'mark cam 2E scuffing' }];
    const view = build({ stage: 'wear', wear, photographs });
    function Marks() {
      return <MarksSeen build={view} stage="wear" work={useWear(view)} />;
    }
    show(<Marks />);
    const [second, third] = screen.getAllByRole('listitem');
    expect(within(second!).getAllByRole('img')).toHaveLength(1);
    expect(within(second!).getByRole('button', { name: 'Photograph it again' })).toBeTruthy();
    expect(within(third!).queryAllByRole('img')).toEqual([]);
    expect(within(third!).getByRole('button', { name: 'Photograph it' })).toBeTruthy();
  });
});

const PICTURE: BuildView['photographs'][number] = {
  ...{
    id: 'p',
    stage: 'wear',
    about: 'lobe 2E',
    note: '',
    shows: '',
    width: 900,
    height: 650,
    by: 'Osk Velland',
  },
  at,
  dropped: false,
};

describe('photographs', () => {
  const row = PICTURE;

  it('stand at their own stage, but for those taken away', () => {
    const photographs = [
      row,
      { ...row, id: 'q', about: 'gone', dropped: true },
      { ...row, id: 'r', stage: 'close' as const },
    ];
    show(<Photographs build={build({ stage: 'wear', photographs })} stage="wear" />);
    expect(screen.getAllByRole('img').map((image) => image.getAttribute('src'))).toEqual([
      '/api/photographs/p',
    ]);
    fireEvent.click(screen.getByRole('button', { name: 'Take lobe 2E away' }));
    expect(put()).toMatchObject([
      { kind: 'photograph-dropped', path: 'builds/b/photographs/p', body: { dropped: true } },
    ]);
  });

  it('are refused for what is no picture and for what is too large, with the file’s name', async () => {
    show(<Photographs build={build({ stage: 'wear' })} stage="wear" />);
    const input = screen.getByLabelText('Photograph at Wear');
    fireEvent.change(input, { target: { files: [new File(['a letter'], 'letter.jpg')] } });
    expect((await screen.findByRole('alert')).textContent).toContain('letter.jpg is no picture');
    const large = new File([], 'large.jpg');
    Object.defineProperty(large, 'size', { value: 13_000_000 });
    fireEvent.change(input, { target: { files: [large] } });
    expect(await screen.findByText(/large.jpg is larger than 12 MB/)).toBeTruthy();
    expect(put()).toEqual([]);
  });
});
