// @vitest-environment happy-dom
// Long because a plan is tried from what is asked to what is fitted on one engine and one drawer.
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Drawer } from '@zero-lash/contract/pieces';
import type { Feel, Setting } from '@zero-lash/contract/setting';
import type { Means } from '@zero-lash/core/sheets';
import { besideTheEngine, piecePoints, planQuestions, type PlanChoices } from '@zero-lash/core/setting';
import fc from 'fast-check';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { store } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { OwnFeel } from '../people/OwnFeel.tsx';
import {
  piecesTyped,
  readKitCsv,
  readSizePrices,
  writeOrderCsv,
  writeSizePrices,
} from '../pieces/drawerCsv.ts';
import { enginesApi } from '../engines/endpoints.ts';
import { drawerApi } from '../pieces/endpoints.ts';
import { planAll } from '../pieces/plans.ts';
import { writePlanCsv } from '../pieces/planCsv.ts';
import { ShimPlan } from '../pieces/ShimPlan.tsx';
import { at, atTheBench, build, put, reading, round, show, signIn } from './shownBench.tsx';

atTheBench();

const SHIMS: Means = {
  ...{ kind: 'shim', seat: 'under-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 9.5 },
  ...{ marking: '', seatOffset: null, stampedIn: 'mm' },
} as Means;
const SYSTEM = 'shim under-bucket 9.5';
const drawerOf = (counts: Readonly<Record<string, number>>, price = 7.5): Drawer => ({
  systems: [
    {
      ...{
        system: SYSTEM,
        title: 'Shims',
        stamped: 'mm',
        made: [2, 2.5, 2.55],
        price,
        sizePrices: [],
        reorder: 2,
        version: 1,
      },
      sizes: Object.entries(counts).map(([thickness, count]) => ({ thickness: Number(thickness), count })),
    },
  ],
});
const pieces = (of: Readonly<Record<string, number>>): BuildView['wear'] =>
  [
    {
      ...{ id: 'w', by: 'Osk Velland', at: '2030-12-31T10:00:00Z' },
      lines: Object.entries(of).map(([place, mm]) => ({
        ...{ kind: 'figure', item: 'piece-in', place, field: 'value', values: [mm], asTyped: String(mm) },
        ...{ how: 'measured', set: 'found', doubtKept: false },
      })),
    },
  ] as unknown as BuildView['wear'];
/** Intakes are to be 0.21 to 0.29, exhausts 0.31 to 0.39. */
const engine = (
  gaps: Readonly<Record<string, readonly [number, number]>>,
  of: Readonly<Record<string, number>>,
  change: Partial<BuildView> = {},
) =>
  build(
    {
      stage: 'set',
      wear: pieces(of),
      rounds: [
        round({
          readings: Object.entries(gaps).map(([key, [lo, hi]]) => {
            const [min, max] = key.endsWith('I') ? [0.21, 0.29] : [0.31, 0.39];
            const verdict =
              lo >= min && hi <= max
                ? 'in-spec'
                : hi < min
                  ? 'tight'
                  : lo > max
                    ? 'loose'
                    : lo < min
                      ? 'undecided-low'
                      : 'undecided-high';
            return reading(key, lo, hi, verdict);
          }),
        }),
      ],
      ...change,
    },
    SHIMS,
  );
const CHOICES: PlanChoices = {
  ...{ reuse: true, drawer: true, keep: [], without: [], guard: 0.004 },
  change: { rule: 'out-of-spec' },
};
const whyOf = (view: BuildView) =>
  Object.fromEntries(
    piecePoints(view)
      .filter(({ point }) => ['1', '2', '3'].includes(point.cylinder))
      .map(({ point, why }) => [point.key, why]),
  );

describe('what is planned for', () => {
  it('is what was measured finely enough, with a piece that is known; everything else says what it wants', () => {
    const view = engine(
      { '1I': [0.24, 0.25], '1E': [0, 0.05], '2I': [0.28, 0.3], '2E': [0.2, 0.21] },
      { '1I': 2.5, '1E': 2.5, '2I': 2.5 },
    );
    expect(whyOf(view)).toMatchObject({
      ...{ '1I': null, '1E': 'no-blade', '2I': 'undecided', '2E': 'need-piece', '3I': 'not-measured' },
    });
  });

  it('is not what was fitted since, until that is measured', () => {
    const fitted: Setting = {
      ...{ id: 's', point: '1I', kind: 'fitted', degrees: null, installed: 2.6, fitted: 2.5, mark: '' },
      ...{ note: '', by: 'Osk Velland', at: '2031-01-01T11:00:00Z', superseded: false },
      ...{ from: 'drawer', to: 'drawer', giver: null, cause: 'chosen' },
    };
    expect(whyOf(engine({ '1I': [0.2, 0.21] }, { '1I': 2.6 }, { settings: [fitted] }))).toMatchObject({
      '1I': 'fitted',
    });
  });

  it('leaves what was found in what the maker leaves alone, unless every point is asked for', () => {
    const plain = engine({ '1I': [0.31, 0.32], '2I': [0.14, 0.15] }, { '1I': 2.5, '2I': 2.5 });
    const asFound = { min: 0.15, max: 0.35, figure: null, kind: 'leave' as const, asWritten: '' };
    const view: BuildView = {
      ...plain,
      sheet: {
        ...plain.sheet,
        limits: plain.sheet.limits.map((row) => (row.role === 'intake' ? { ...row, asFound } : row)),
      },
      // as a build is read: judged by what is left alone
      rounds: plain.rounds.map((each) => ({
        ...each,
        readings: each.readings.map((row) =>
          row.point === '1I' ? { ...row, verdict: 'in-spec' as const } : row,
        ),
      })),
    };
    const keep = (choices: object) =>
      planQuestions(view, piecePoints(view), drawerOf({}), { ...CHOICES, ...choices })[0]!.keep;
    expect(keep({})).toEqual(['1I']);
    expect(keep({ change: { rule: 'all' } })).toEqual([]);
    expect(planQuestions(plain, piecePoints(plain), drawerOf({}), CHOICES)[0]!.keep).toEqual([]);
  });

  it('takes the drawer and the price of its own pieces, and what lies in the tray', () => {
    const view = engine({ '1I': [0.14, 0.15] }, { '1I': 2.5 });
    const ask = (change: object) =>
      planQuestions(view, piecePoints(view), drawerOf({ '2.4': 3 }), { ...CHOICES, ...change });
    expect(ask({})).toMatchObject([{ stock: [{ thickness: 2.4, qty: 3 }], guard: 0.004 }]);
    expect(ask({ drawer: false })).toMatchObject([{ stock: [] }]);
    expect(ask({})[0]!.orderable).toContainEqual({ thickness: 2.45, price: 7.5 });
    expect(ask({ keep: ['1I', '9X'] })).toMatchObject([{ keep: ['1I'] }]);
  });
});

describe('pieces that move within the engine', () => {
  const fitted = (
    key: string,
    installed: number,
    into: number,
    from: Setting['from'],
    giver: string | null,
  ) => ({
    ...{ point: key, kind: 'fitted' as const, installed, fitted: into, from, giver },
    to: from === 'engine' ? ('engine' as const) : ('drawer' as const),
  });

  it('lie in the tray until they go in, and leave a place that has none where they came out of one', () => {
    // 1I took what was in 2I: its own lies in the tray, and 2I has none
    const first = [fitted('1I', 2.5, 2.4, 'engine', '2I')];
    expect(besideTheEngine(first)).toEqual({ tray: [2.5], gone: new Set(['2I']) });
    const second = [...first, fitted('2I', 2.4, 2.5, 'engine', null)];
    expect(besideTheEngine(second)).toEqual({ tray: [], gone: new Set() });
    expect(besideTheEngine([fitted('1I', 2.5, 2.4, 'drawer', null)])).toEqual({ tray: [], gone: new Set() });
  });

  it('leave the place they came out of, though another has one as thick', () => {
    const view = engine(
      { '1I': [0.14, 0.15], '2I': [0.24, 0.25], '3I': [0.34, 0.35] },
      { '1I': 2.5, '2I': 2.4, '3I': 2.4 },
      {
        settings: [{ ...fitted('1I', 2.5, 2.4, 'engine', '3I'), id: 's', by: '', at } as unknown as Setting],
      },
    );
    const [question] = planQuestions(view, piecePoints(view), drawerOf({}), CHOICES);
    expect(question!.points.filter(({ gone }) => gone).map(({ key }) => key)).toEqual(['3I']);
    expect(question!.stock).toEqual([{ thickness: 2.5, qty: 1 }]);
  });

  it('are none lost and none made twice, whichever move of a plan is made first', () => {
    const keys = ['1I', '2I', '3I', '4I', '5I', '6I'];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 10, max: 40 }), fc.integer({ min: 0, max: 8 })), {
          minLength: 6,
          maxLength: 6,
        }),
        fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 40, maxLength: 40 }),
        (found, picks) => {
          const gaps = Object.fromEntries(
            keys.map((key, i) => [key, [found[i]![0] / 100, found[i]![0] / 100 + 0.005]]),
          );
          const isIn = Object.fromEntries(keys.map((key, i) => [key, 2.3 + found[i]![1] * 0.05]));
          const drawer = drawerOf({ '2.4': 1, '2.5': 2, '2.6': 1 });
          const settings: Setting[] = [];
          const view = () => engine(gaps as never, isIn, { settings: [...settings] });
          const ask = () => {
            const points = piecePoints(view());
            const left = drawer.systems[0]!.sizes.map(({ thickness, count }) => ({
              thickness,
              count:
                count -
                settings.filter((one) => one.from === 'drawer' && Math.abs(one.fitted! - thickness) < 1e-6)
                  .length,
            }));
            const now = { systems: [{ ...drawer.systems[0]!, sizes: left }] };
            const questions = planQuestions(view(), points, now, CHOICES);
            return { points, plan: planAll(questions).plan, ...besideTheEngine(settings) };
          };
          const before = ask().plan.totals;
          for (const pick of picks) {
            const { points, plan, tray, gone } = ask();
            expect(plan.totals.unsolved).toBeLessThanOrEqual(before.unsolved);
            const moving = plan.assignments.filter(({ source }) =>
              ['removed', 'stock', 'order'].includes(source),
            );
            if (moving.length === 0) break;
            const { key, source, thickness, from: giver = null } = moving[pick % moving.length]!;
            const elsewhere = moving.some(({ from }) => from === key) || gone.has(key);
            const fromTray = source === 'stock' && tray.some((mm) => Math.abs(mm - thickness!) < 1e-6);
            settings.push({
              ...{
                id: String(settings.length),
                cause: 'chosen',
                point: key,
                kind: 'fitted',
                degrees: null,
                mark: '',
                note: '',
              },
              ...{
                installed: points.find(({ point: { key: own } }) => own === key)!.installed,
                fitted: thickness,
              },
              ...{ by: 'Osk Velland', at: '2031-01-01T12:00:00Z', superseded: false },
              from: source === 'removed' || fromTray ? 'engine' : source === 'order' ? 'bought' : 'drawer',
              to: elsewhere ? 'engine' : 'drawer',
              giver,
            });
          }
          // every piece there was, and every one bought, is in the engine, in the drawer or in the tray: once
          const { tray, gone, plan } = ask();
          expect(gone.size).toBe(plan.assignments.filter(({ key }) => gone.has(key)).length);
          const last = new Map(settings.map((one) => [one.point, one.fitted!]));
          const now = [
            ...keys.filter((key) => !gone.has(key)).map((key) => last.get(key) ?? isIn[key]!),
            ...tray,
            ...settings.filter(({ to }) => to === 'drawer').map(({ installed }) => installed!),
          ];
          const came = [
            ...keys.map((key) => isIn[key]!),
            ...settings
              .filter(({ from }) => from === 'drawer' || from === 'bought')
              .map(({ fitted: mm }) => mm!),
          ];
          const sorted = (list: number[]) => list.map((mm) => Math.round(mm * 100)).sort();
          expect(sorted(now)).toEqual(sorted(came));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a plan as it is worked off', () => {
  const shown = async (drawer: Drawer, view: BuildView) => {
    await store.dispatch(drawerApi.util.upsertQueryData('drawer', undefined, drawer));
    show(<ShimPlan build={view} />);
    return screen.findByRole('region', { name: 'Moves of the plan' });
  };
  const swap = (other: Record<string, readonly [number, number]> = {}, change: Partial<BuildView> = {}) =>
    engine(
      { '1I': [0.14, 0.15], '2I': [0.33, 0.34], '3I': [0.24, 0.25], ...other },
      { '1I': 2.5, '2I': 2.4, '3I': 2.45 },
      change,
    );
  beforeEach(() => signIn('bench'));

  it('swaps what is in already before anything is bought, and says what the simple ways would cost', async () => {
    const moves = await shown(drawerOf({}), swap());
    const rows = within(moves)
      .getAllByRole('row')
      .slice(1)
      .map(({ textContent }) => textContent);
    expect(rows).toHaveLength(2);
    expect(rows[0]).toMatch(/^11I2\.50, laid aside2\.40out of 2I/);
    expect(rows[1]).toMatch(/^22I2\.402\.50out of 1I/);
    const text = screen.getByRole('region', { name: 'Shim plan' }).textContent!;
    expect(text).toContain('This plan0 to buy; 3 of 3 certain');
    expect(text).toContain('Buy all2 to buy, 15.00; 3 of 3 certain');
    expect(text).toContain('Buy none0 to buy; 3 of 3 certain');
  });

  it('writes down each move with where its piece came from and where the other went', async () => {
    await shown(drawerOf({}), swap());
    fireEvent.click(screen.getByRole('button', { name: '1I: fitted' }));
    expect(put()).toMatchObject([
      {
        kind: 'setting',
        body: {
          point: '1I',
          kind: 'fitted',
          installed: 2.5,
          fitted: 2.4,
          from: 'engine',
          to: 'engine',
          giver: '2I',
        },
      },
    ]);
  });

  it('stays under the finger as it is worked off, and is made again when somebody says so', async () => {
    await store.dispatch(drawerApi.util.upsertQueryData('drawer', undefined, drawerOf({})));
    const view = swap();
    let comesIn: (view: BuildView) => void = () => undefined;
    function Watched() {
      const [now, setNow] = useState(view);
      comesIn = (next) => act(() => setNow(next));
      return <ShimPlan build={now} />;
    }
    show(<Watched />);
    await screen.findByRole('region', { name: 'Moves of the plan' });
    const second = screen.getByRole<HTMLButtonElement>('button', { name: '2I: fitted' });
    const row = second.closest('tr')!.rowIndex;
    fireEvent.click(screen.getByRole('button', { name: '1I: fitted' }));
    const [{ body }] = put() as unknown as [{ body: Partial<Setting> }];
    const made = { ...body, id: 's1', by: 'Tobin Hask', at: '2031-01-01T12:00:00Z', superseded: false };
    comesIn({ ...view, settings: [made as Setting] });
    await waitFor(() => expect(screen.getByText(/Fitted, and to be proved: 1I/)).toBeTruthy());
    // the very same button, where it was, and not disabled for a moment
    expect([second.isConnected, second.disabled, second.closest('tr')!.rowIndex]).toEqual([true, false, row]);
    expect(screen.queryByRole('button', { name: '1I: fitted' })).toBeNull();
    expect(screen.queryByText(/calls for other moves/)).toBeNull();
    fireEvent.click(second);
    expect(put()).toMatchObject([{}, { body: { point: '2I', fitted: 2.5, giver: '1I' } }]);
    // what was found at 3I is another gap now: the list stays, and says so
    comesIn(swap({ '3I': [0.14, 0.15] }, { settings: [made as Setting] }));
    await waitFor(() => expect(screen.getByText(/calls for other moves/)).toBeTruthy());
    expect(second.isConnected).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'Make the plan again' }));
    await waitFor(() => expect(screen.getByRole('button', { name: '3I: fitted' })).toBeTruthy());
  });

  it('is made again where a piece is barred or a point is kept, and again where that is taken back', async () => {
    await shown(drawerOf({}), swap());
    fireEvent.click(screen.getByRole('button', { name: '2I: another one' }));
    await waitFor(() => expect(screen.getByText(/To buy/).parentElement!.textContent).toContain('2.45'));
    expect(screen.getByText(', likely only')).toBeTruthy();
    // what is not bought yet is not fitted
    expect(screen.getByRole<HTMLButtonElement>('button', { name: '2I: fitted' }).disabled).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: /2I without 2\.50/ }));
    await waitFor(() => expect(screen.queryByText(/To buy/)).toBeNull());
    fireEvent.click(screen.getByRole('button', { name: '2I: keep what is in' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: '2I: fitted' })).toBeNull());
    expect(screen.getByRole('button', { name: /2I keeps what is in/ })).toBeTruthy();
  });

  it('takes from the drawer what lies there, and says what no piece made can do', async () => {
    const view = engine({ '1I': [0.14, 0.15], '2I': [0.1, 0.11] }, { '1I': 2.5, '2I': 2 });
    const moves = await shown(drawerOf({ '2.4': 1 }), view);
    expect(moves.textContent).toMatch(/1I2\.502\.40the drawer/);
    expect(
      screen.getByText(/2I: no piece made or at hand brings it into spec\. It would take 1\.855/),
    ).toBeTruthy();
    // what is in stays in where nothing is brought in
    expect(screen.getByText(/Left over/).parentElement!.textContent).not.toContain('2.00');
    fireEvent.click(screen.getByRole('button', { name: '1I: fitted' }));
    expect(put()).toMatchObject([{ body: { from: 'drawer', to: 'drawer' } }]);
  });

  it('asks for the piece that is in, and keeps it with the wear sheet', async () => {
    await store.dispatch(drawerApi.util.upsertQueryData('drawer', undefined, drawerOf({})));
    show(<ShimPlan build={engine({ '1I': [0.14, 0.15] }, {})} />);
    const field = screen.getByLabelText('In at 1I, mm');
    fireEvent.change(field, { target: { value: 'thick' } });
    fireEvent.blur(field);
    expect(screen.getByText('A thickness such as 2.40.')).toBeTruthy();
    expect(put()).toEqual([]);
    // a slip is asked about, and leaving the field does not keep it
    fireEvent.change(field, { target: { value: '24.5' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(screen.getByText(/24\.50.mm is not made\. Did you mean 2\.45\?/)).toBeTruthy();
    fireEvent.blur(field);
    expect(put()).toEqual([]);
    fireEvent.change(field, { target: { value: '2.45' } });
    // Enter writes it, and leaving the field after it not again
    fireEvent.keyDown(field, { key: 'Enter' });
    fireEvent.blur(field);
    expect(put()).toMatchObject([
      { kind: 'wear', body: { lines: [{ item: 'piece-in', place: '1I', values: [2.45], how: 'measured' }] } },
    ]);
  });

  it('takes what an earlier build left in for every point at once, and nothing of this build', async () => {
    await store.dispatch(drawerApi.util.upsertQueryData('drawer', undefined, drawerOf({})));
    const there = (point: string, thickness: number, buildId = 'before') => ({
      ...{
        point,
        thickness,
        stamped: 'mm' as const,
        mark: '',
        how: 'fitted' as const,
        by: 'Osk Velland',
        at,
        buildId,
        build: 1,
      },
    });
    const known = [there('1I', 2.5), there('2I', 2.45), there('3I', 2.4, 'b')];
    await store.dispatch(enginesApi.util.upsertQueryData('enginePieces', 'e', known));
    show(<ShimPlan build={engine({ '1I': [0.14, 0.15], '2I': [0.14, 0.15], '3I': [0.14, 0.15] }, {})} />);
    fireEvent.click(await screen.findByRole('button', { name: 'Take what was last in at 2 points' }));
    expect(put()).toMatchObject([
      { body: { lines: [{ place: '1I', values: [2.5], asTyped: '2.50' }] } },
      { body: { lines: [{ place: '2I', values: [2.45], asTyped: '2.45' }] } },
    ]);
  });

  it('keeps a piece that is not made at a second word', async () => {
    await store.dispatch(drawerApi.util.upsertQueryData('drawer', undefined, drawerOf({})));
    show(<ShimPlan build={engine({ '1I': [0.14, 0.15] }, {})} />);
    const field = screen.getByLabelText('In at 1I, mm');
    fireEvent.change(field, { target: { value: '3.60' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(put()).toMatchObject([{ body: { lines: [{ values: [3.6], doubtKept: true }] } }]);
  });

  it('is nothing where every point is set by a screw', () => {
    expect(
      show(<ShimPlan build={build({ stage: 'set' }, { ...SHIMS, kind: 'pivot-nut' } as never)} />).container
        .textContent,
    ).toBe('');
  });

  it('is saved as CSV', () => {
    const view = swap();
    const points = piecePoints(view);
    const { plan } = planAll(planQuestions(view, points, drawerOf({}), CHOICES));
    expect(writePlanCsv(points, plan).split('\r\n')).toEqual(
      expect.arrayContaining([
        'point,gap from,gap to,in now,goes in,from,leaves from,leaves to,status',
        '1I,0.14,0.15,2.5,2.4,2I,0.24,0.25,certain',
      ]),
    );
    expect(at).toBeTruthy();
  });
});

describe('pieces as they are typed', () => {
  const made = [2.3, 2.35, 2.4];
  it.each([
    [
      '2.35 × 2, 2.40',
      [
        [2.35, 2],
        [2.4, 1],
      ],
    ],
    [
      '2,35 x 2; 2,40',
      [
        [2.35, 2],
        [2.4, 1],
      ],
    ],
    ['2.35 2, 2.35', [[2.35, 3]]],
    ['2.3mm × 4', [[2.3, 4]]],
  ])('“%s” is understood', (text, lines) => {
    const read = piecesTyped(text, made);
    expect('lines' in read && read.lines.map(({ thickness, count }) => [thickness, count])).toEqual(lines);
  });
  it.each([
    ['', 'Sizes with how many'],
    ['a lot', '“a lot” is not a size'],
    ['23.5', '23.5 mm is not made.'],
    ['235', '235 mm is no piece.'],
  ])('“%s” is not: %s', (text, error) => {
    const read = piecesTyped(text, made);
    expect('error' in read && read.error).toContain(error);
  });

  it('are in the unit they are stamped in, unless they say another', () => {
    const inches = [100, 101, 102].map((thou) => Math.round(thou * 254) / 10_000);
    expect(piecesTyped('101 × 2, 2.54 mm', inches, 'thou')).toEqual({
      lines: [
        { thickness: 2.5654, count: 2 },
        { thickness: 2.54, count: 1 },
      ],
    });
    expect(piecesTyped('102.5', inches, 'thou')).toEqual({ error: '102.5 thou is not made.' });
    const { prices } = readSizePrices('101 = 9.50', inches, 'thou') as {
      prices: { thickness: number; price: number }[];
    };
    expect(prices).toEqual([{ thickness: 2.5654, price: 9.5 }]);
    expect(writeSizePrices(prices, 'thou')).toBe('101.0 = 9.50');
  });

  it('of a kit are read line by line, and what is bad is named', () => {
    const lines = readKitCsv('thickness,count\n2.35,3\n2,4\n2.40,many\n\n"2,30",1\n', made);
    expect(lines.map(({ line, thickness, count, error }) => [line, thickness, count, error])).toEqual([
      [2, 2.35, 3, null],
      [3, null, null, '2 mm is not made'],
      [4, null, null, '“many” is no count'],
      [5, null, null, 'nothing is on it'],
      [6, 2.3, 1, null],
    ]);
    expect(readKitCsv('2.35,3', made)).toMatchObject([{ line: 1, thickness: 2.35, error: null }]);
  });

  it('that are short stand on the order list with what they cost', () => {
    const [system] = drawerOf({ '2.5': 1, '2.55': 2, '2': 0 }).systems;
    expect(writeOrderCsv(system!).split('\r\n')).toEqual([
      'pieces,thickness mm,count,price',
      'Shims,2,2,15.00',
      'Shims,2.5,1,7.50',
    ]);
  });
});

describe('one’s own feel', () => {
  const said = async (feel: Feel) => {
    await signIn('bench');
    await store.dispatch(drawerApi.util.upsertQueryData('feel', undefined, feel));
    return show(<OwnFeel />).container.textContent!.replace(/\u202f|\u00a0/g, ' ');
  };
  it('is said with how many looks it comes from, and what a plan keeps by it', async () => {
    expect(await said({ count: 12, sd: 0.004, bias: -0.006, guard: 0.008, locks: [] })).toBe(
      'Your feelFrom 12 blind second readings: you repeat a gap to ±0.004 mm, and 0.006 mm wider than whoever read it first. A plan of yours keeps 0.008 mm inside every band.',
    );
  });
  it('is not known before there was a look, nor reckoned with before there were ten', async () => {
    expect(await said({ count: 0, sd: null, bias: null, guard: 0.004, locks: [] })).toContain(
      'nothing a second time',
    );
    cleanup();
    expect(await said({ count: 3, sd: 0.01, bias: 0, guard: 0.004, locks: [] })).toContain(
      'until there are ten such readings.',
    );
  });
});

describe('the moves of a plan', () => {
  it('are drawn over the head, and with the cam out laid out as a tray', async () => {
    await signIn('bench');
    // each wants what is in at the other
    const shown = engine({ '1I': [0.3, 0.31], '2I': [0.19, 0.2] }, { '1I': 2.5, '2I': 2.55 });
    show(<ShimPlan build={shown} />);
    expect(await screen.findByRole('group', { name: /Moves over the head. 1: / })).toBeTruthy();
    const tray = screen.getByRole('list', { name: 'Tray to fill' });
    expect(
      within(tray)
        .getAllByRole('listitem')
        .map((each) => each.textContent)
        .sort(),
    ).toEqual(['1I2.55', '2I2.50']);
  });
});

describe('what the maker prints', () => {
  const chart = {
    role: 'intake' as const,
    installed: [2.5, 2.55],
    rows: [
      { from: 0, to: 0.21, pieces: [2.45, 2.5] },
      { from: 0.21, to: 0.29, pieces: ['keep' as const, 'keep' as const] },
      { from: 0.29, to: 0.4, pieces: [2.6, null] },
    ],
  };
  const view = (gaps: Readonly<Record<string, readonly [number, number]>>, of: Record<string, number>) => {
    const shown = engine(gaps, of);
    return { ...shown, sheet: { ...shown.sheet, pieceCharts: [chart] } } as BuildView;
  };
  const planned = (shown: BuildView) =>
    planAll(
      planQuestions(
        shown,
        piecePoints(shown).filter(({ why }) => why === null),
        undefined,
        {
          ...{
            reuse: false,
            drawer: false,
            keep: [],
            without: [],
            guard: 0,
            change: { rule: 'all' as const },
          },
        },
      ),
    ).plan.assignments;

  it('governs: no other piece is fitted, and what it keeps is kept', () => {
    const shown = view(
      { '1I': [0.16, 0.17], '2I': [0.22, 0.23], '1E': [0.28, 0.29] },
      {
        ...{ '1I': 2.5, '2I': 2.55, '1E': 2.5 },
      },
    );
    const moves = new Map(planned(shown).map((move) => [move.key, move]));
    // by the difference alone it would be 2.40
    expect(moves.get('1I')).toMatchObject({ thickness: 2.45, source: 'order' });
    expect(moves.get('2I')).toMatchObject({ source: 'keep' });
    // of exhausts it prints nothing
    expect(moves.get('1E')!.thickness).toBeCloseTo(2.45, 9);
    expect(piecePoints(shown).find(({ point }) => point.key === '1I')!.chart).toBe(2.45);
  });

  it('is said beside the plan', async () => {
    await signIn('bench');
    show(<ShimPlan build={view({ '1I': [0.16, 0.17] }, { '1I': 2.5 })} />);
    expect(await screen.findByText(/The maker’s chart governs:/)).toBeTruthy();
    expect(screen.getByText(/The maker’s chart governs:/).textContent).toMatch(/1I 2\.45\smm/);
  });
});

describe('what a size costs', () => {
  it('is said for the sizes that cost something else, and a plan reckons with it', () => {
    const made = [2.5, 2.55];
    expect(readSizePrices('2.50 = 9.50; 2,55=8', made)).toEqual({
      prices: [
        { thickness: 2.5, price: 9.5 },
        { thickness: 2.55, price: 8 },
      ],
    });
    expect(readSizePrices('', made)).toEqual({ prices: [] });
    for (const wrong of ['2.5', '2.5 = a', '2.6 = 3', '2.5 = -1', '2.5 = 1.234'])
      expect(readSizePrices(wrong, made)).toHaveProperty('error');
    const prices = [{ thickness: 2.5, price: 9.5 }];
    expect(readSizePrices(writeSizePrices(prices), made)).toEqual({ prices });
    // a size by 0.025 is another than the one by hundredths beside it
    const fine = [{ thickness: 1.225, price: 9.5 }];
    expect(readSizePrices(writeSizePrices(fine), [1.2, 1.225, 1.25])).toEqual({ prices: fine });
    const shown = engine({ '1I': [0.1, 0.11] }, { '1I': 2.5 });
    const drawer = drawerOf({});
    const dear = {
      systems: drawer.systems.map((system) => ({ ...system, sizePrices: [{ thickness: 2.35, price: 20 }] })),
    };
    const [asked] = planQuestions(
      shown,
      piecePoints(shown).filter(({ why }) => why === null),
      dear,
      {
        ...{ reuse: true, drawer: true, keep: [], without: [], guard: 0, change: { rule: 'all' } },
      },
    );
    const priceOf = (mm: number) =>
      asked!.orderable.find(({ thickness }) => Math.abs(thickness - mm) < 1e-9)!.price;
    expect([priceOf(2.35), priceOf(2.4)]).toEqual([20, 7.5]);
  });
});
