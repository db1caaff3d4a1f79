// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import type { Setting } from '@zero-lash/contract/setting';
import { checkKey } from '@zero-lash/core/builds';
import { bareFit, baselineShim, piecePoints, planQuestions, sizeToMeasure } from '@zero-lash/core/setting';
import type { Means } from '@zero-lash/core/sheets';
import { limitedPoints } from '@zero-lash/core/measuring';
import { headPoints } from '../buildPage/headPoints.ts';
import { describe, expect, it } from 'vitest';
import type { BuildView } from '../builds/buildView.ts';
import { expectedAt } from '../measuring/expectedAt.ts';
import { Baseline } from '../setting/Baseline.tsx';
import { planAll } from '../pieces/plans.ts';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const SHIMS = (seatOffset: number | null): Means =>
  ({
    ...{ kind: 'shim', seat: 'under-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 9.5 },
    ...{ marking: '', seatOffset, stampedIn: 'mm', turnsBare: true },
  }) as Means;
const figures = (item: string, of: Readonly<Record<string, Readonly<Record<string, number>>>>) =>
  ({
    ...{ id: item, by: 'Osk Velland', at: '2030-12-31T10:00:00Z' },
    lines: Object.entries(of).flatMap(([place, fields]) =>
      Object.entries(fields).map(([field, mm]) => ({
        ...{ kind: 'figure', item, place, field, values: [mm], asTyped: String(mm) },
        ...{ how: 'measured', set: 'found', doubtKept: false },
      })),
    ),
  }) as unknown as BuildView['wear'][number];
const KEYS = ['1I', '1E', '2I', '2E', '3I', '3E', '4I', '4E', '5I', '5E', '6I', '6E'];

/** Every point found 0.05 too tight with 2.5 in; one of them much tighter. */
const found = (tightest: string, change: Partial<BuildView> = {}, offset: number | null = null) =>
  build(
    {
      wear: [figures('piece-in', Object.fromEntries(KEYS.map((key) => [key, { value: 2.5 }])))],
      rounds: [
        round({
          readings: KEYS.map((key) =>
            key === tightest ? reading(key, 0.05, 0.06, 'tight') : reading(key, 0.2, 0.21, 'tight'),
          ),
        }),
      ],
      ...change,
    },
    SHIMS(offset),
  );
const setting = (point: string, change: Partial<Setting>): Setting => ({
  ...{ id: `s-${point}`, point, kind: 'bare', degrees: null, installed: 2.5, fitted: null, mark: '' },
  ...{
    note: '',
    from: 'unsaid',
    to: 'drawer',
    giver: null,
    cause: 'chosen',
    by: 'Osk Velland',
    superseded: false,
  },
  at: '2031-01-01T11:00:00Z',
  ...change,
});
const choose = (way: string) =>
  fireEvent.change(screen.getByLabelText('Measured first'), { target: { value: way } });

describe('one equal piece everywhere', () => {
  it('is proposed by the forecast, and written down at every point with what was in', async () => {
    await signIn('bench');
    const view = found('3E');
    show(<Baseline build={view} />);
    choose('equal');
    const bare = KEYS.map((key) => ({
      ...{ key, min: key.endsWith('E') ? 0.31 : 0.21, max: key.endsWith('E') ? 0.39 : 0.29 },
      ...(key === '3E' ? { lo: 2.55, hi: 2.56 } : { lo: 2.7, hi: 2.71 }),
    }));
    const sizes = Array.from({ length: 21 }, (_, index) => Math.round((2 + index * 0.05) * 100) / 100);
    const { pick } = baselineShim({ points: bare, sizes, measurable: { from: 0.04, to: 0.6 } });
    expect(screen.getByText(/is proposed/).textContent).toContain(pick.toFixed(2));
    expect(screen.getByLabelText('Equal piece, mm')).toHaveProperty('value', String(pick));
    // 2.6 would hold the tightest open
    fireEvent.change(screen.getByLabelText('Equal piece, mm'), { target: { value: '2.6' } });
    expect(screen.getByText(/would hold 3E open/)).toBeTruthy();
    expect(screen.getByRole('button', { name: /everywhere/ })).toHaveProperty('disabled', true);
    // 2.55 leaves it nothing to measure
    fireEvent.change(screen.getByLabelText('Equal piece, mm'), { target: { value: '2.55' } });
    expect(screen.getByText(/3E cannot be measured with it/).textContent).toMatch(/try 2\.50?\smm there/);
    fireEvent.change(screen.getByLabelText('Equal piece, mm'), { target: { value: '2.3' } });
    fireEvent.click(screen.getByRole('button', { name: 'Fitted 2.30 everywhere' }));
    expect(put()).toHaveLength(12);
    expect(put()[0]).toMatchObject({
      kind: 'setting',
      body: { point: '1Ia'.slice(0, 2), kind: 'fitted', installed: 2.5, fitted: 2.3, to: 'drawer' },
    });
    expect(screen.getByRole('button', { name: 'Written down at every point' })).toHaveProperty(
      'disabled',
      true,
    );
  });

  it('is chosen by hand where nothing is known, and there is none where a screw is turned', async () => {
    await signIn('bench');
    show(<Baseline build={build({}, SHIMS(null))} />);
    choose('equal');
    expect(screen.getByText(/choose a size that is surely/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Choose a size first' })).toHaveProperty('disabled', true);
    cleanup();
    expect(show(<Baseline build={build({}, SCREW)} />).container.textContent).toBe('');
  });

  it('names for a point it leaves unmeasured the thickest that lets it be', () => {
    const measurable = { from: 0.05, to: 0.3 };
    const point = { lo: 2.1, hi: 2.2 };
    expect(sizeToMeasure(point, [1.7, 1.9, 2, 2.2], measurable)).toBe(2);
    expect(sizeToMeasure(point, [1.5, 1.6], measurable)).toBe(1.6);
    expect(sizeToMeasure(point, [2.3], measurable)).toBeNull();
  });
});

describe('nothing in, and a known offset', () => {
  it('is written down only once its caution is accepted, at every point that is not bare already', async () => {
    await signIn('bench');
    show(<Baseline build={found('3E', { settings: [setting('1I', {})] }, 0.31)} />);
    choose('bare');
    expect(screen.getByText(/can push the collets out/)).toBeTruthy();
    expect(screen.getByText('Nothing is in at 1I.')).toBeTruthy();
    const button = () => screen.getByRole('button', { name: 'Nothing is in, at every point' });
    expect(button()).toHaveProperty('disabled', true);
    fireEvent.click(screen.getByRole('checkbox', { name: /The maker allows it/ }));
    // accepted for the build, and so on every device
    expect(put()).toMatchObject([
      { kind: 'tick', body: { stage: 'set', check: checkKey('turned-bare'), done: true } },
    ]);
    cleanup();
    const ticks = [
      { stage: 'set' as const, check: checkKey('turned-bare'), done: true, by: 'Osk Velland', at },
    ];
    show(<Baseline build={found('3E', { settings: [setting('1I', {})], ticks }, 0.31)} />);
    choose('bare');
    fireEvent.click(button());
    expect(put()).toHaveLength(12);
    expect(put()[1]).toMatchObject({ body: { point: '1E', kind: 'bare', installed: 2.5, to: 'drawer' } });
  });

  it('is planned for by the offset of the sheet, or the one measured there; without any it says so', () => {
    const bareRound = round({
      id: 'r2',
      kind: 'as-set',
      readings: [{ ...reading('1I', 2.33, 2.35, 'loose'), takenAt: '2031-01-01T12:00:00Z', roundId: 'r2' }],
    });
    const view = (offset: number | null, wear: BuildView['wear'] = []) =>
      found('3E', { settings: [setting('1I', {})], rounds: [bareRound], wear }, offset);
    const of = (shown: BuildView) => piecePoints(shown).find(({ point }) => point.key === '1I')!;
    expect(of(view(null)).why).toBe('no-offset');
    expect(of(found('3E', { settings: [setting('1E', {})] }, 0.31)).why).toBeNull();
    const bare = piecePoints(found('3E', { settings: [setting('1E', {})] }, 0.31));
    expect(bare.find(({ point }) => point.key === '1E')!.why).toBe('bare');
    const measured = figures('seat-offset', { '1I': { shim: 2.55, gap: 0.22, bare: 2.05 } });
    for (const [shown, seatOffset] of [
      [view(0.31), 0.31],
      [view(0.31, [measured]), 0.72],
    ] as const) {
      expect(of(shown)).toMatchObject({ why: null, bare: true, installed: seatOffset });
      const questions = planQuestions(shown, [of(shown)], undefined, {
        ...{ reuse: true, drawer: true, keep: [], without: [], guard: 0, change: { rule: 'out-of-spec' } },
      });
      const [move] = planAll(questions).plan.assignments;
      const sizes = Array.from({ length: 21 }, (_, index) => Math.round((2 + index * 0.05) * 100) / 100);
      const alone = bareFit({ lo: 2.33, hi: 2.35, seatOffset, target: 0.25, sizes });
      expect(move!.thickness).toBeCloseTo(alone.pick, 9);
      expect(move!.lo).toBeCloseTo(alone.lo, 9);
    }
  });

  it('is neither tight nor loose, and a gap of a shim’s thickness is no slip there', () => {
    const view = found('3E', { settings: [setting('1I', {})] }, 0.31);
    const point = limitedPoints(view.sheet).find(({ key }) => key === '1I')!;
    expect(expectedAt(view, point)).toEqual({ min: 1.9, max: 2.98 });
    expect(expectedAt({ ...view, settings: [] }, point)).toEqual({ min: 0.21, max: 0.29 });
    const shown = headPoints([point], view.rounds[0], String, new Set(), () => setting('1I', {}));
    expect(shown['1I']).toMatchObject({ state: 'bare' });
  });
});
