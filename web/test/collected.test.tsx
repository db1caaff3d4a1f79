// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { act, fireEvent, renderHook, screen } from '@testing-library/react';
import { lashPoints, meansFor, type Means } from '@zero-lash/core/sheets';
import { measuredPoints } from '@zero-lash/core/measuring';
import { pieceSystem } from '@zero-lash/core/setting';
import { describe, expect, it, vi } from 'vitest';
import { store } from '../app/store.ts';
import { system } from '../app/theme.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBuildWork } from '../buildPage/useBuildWork.ts';
import { drawerApi } from '../pieces/endpoints.ts';
import { SettingForm } from '../setting/SettingForm.tsx';
import { atTheBench, build, put, reading, round, show, signIn } from './shownBench.tsx';

atTheBench();

const SHIMS: Means = {
  ...{ kind: 'shim', seat: 'on-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 29 },
  ...{ marking: '', seatOffset: null },
};
const inDrawer = (...sizes: number[]) =>
  act(() =>
    store.dispatch(
      drawerApi.util.upsertQueryData('drawer', undefined, {
        systems: [
          {
            ...{
              system: pieceSystem(meansFor(check([]).sheet.pattern, 'intake'))!.key,
              name: '',
              made: null,
            },
            ...{ price: 0, sizePrices: [], low: [] },
            sizes: sizes.map((thickness) => ({ thickness, count: 2 })),
          },
        ],
        moves: [],
      } as never),
    ),
  );
const KEYS = lashPoints(build({}, SHIMS).sheet.pattern).map(({ key }) => key);
/** A check in its lap, with what was read so far; 2.60 is in at every point. */
const check = (readings: readonly ReturnType<typeof reading>[], change: Partial<BuildView> = {}): BuildView =>
  build(
    {
      ...{ job: 'valve-check', stage: 'set' },
      rounds: [round({ readings: [...readings] }), round({ id: 's', kind: 'as-set' })],
      wear: [
        {
          ...{ id: 'w', by: 'Osk Velland', at: '2031-01-01T08:00:00Z' },
          lines: KEYS.map((place) => ({
            ...{ kind: 'figure', item: 'piece-in', place, field: 'value', values: [2.6], asTyped: '2.6' },
            ...{ how: 'measured', set: 'found', doubtKept: false },
          })),
        },
      ] as never,
      ...change,
    },
    SHIMS,
  );
const around = ({ children }: { readonly children: ReactNode }) => (
  <Provider store={store}>
    <ChakraProvider value={system}>
      <MemoryRouter>{children}</MemoryRouter>
    </ChakraProvider>
  </Provider>
);
const worked = (view: BuildView) =>
  renderHook(({ build: given }) => useBuildWork(given), { wrapper: around, initialProps: { build: view } });
const TIGHT = reading('1I', 0.16, 0.17, 'tight');

describe('a lap of an engine on pieces', () => {
  it('goes on past a point whose piece nobody has, and comes back to it when every point was felt', async () => {
    await inDrawer(2.3);
    const { result, rerender } = worked(check([TIGHT]));
    expect(result.current.collected).toEqual(['1I']);
    const { here, next } = result.current.turning.progress;
    expect([...(here?.left ?? []), ...(next?.left ?? [])]).not.toContain('1I');
    const rest = KEYS.slice(1).map((key) =>
      key.endsWith('I') ? reading(key, 0.24, 0.26, 'in-spec') : reading(key, 0.34, 0.36, 'in-spec'),
    );
    rerender({ build: check([TIGHT, ...rest]) });
    expect(result.current.collected).toEqual([]);
    expect(result.current.turning.progress.next?.left).toEqual(['1I']);
    act(() => result.current.onNext());
    expect(result.current.selected.key).toBe('1I');
  });

  it('stays at a point whose piece is in hand, as long as nobody takes it out of the drawer', async () => {
    await inDrawer(2.5);
    const { result } = worked(check([TIGHT]));
    expect(result.current.collected).toEqual([]);
    const point = { key: '1I', role: 'intake' } as const;
    const tight = { kind: 'bracket', go: 0.16, noGo: 0.17 } as const;
    expect(result.current.staysFor(point, tight)).toBe(true);
    await inDrawer(2.3);
    expect(result.current.staysFor(point, tight)).toBe(false);
  });

  it('says at the point whether the piece is in hand, and collects with what is in there now', async () => {
    await signIn('bench');
    await inDrawer(2.3);
    const view = check([TIGHT], { wear: [] });
    const onNext = vi.fn();
    const point = measuredPoints(view.sheet).find(({ key }) => key === '1I')! as never;
    show(
      <SettingForm build={view} point={point} reading={TIGHT} stale={false} target={0.25} onNext={onNext} />,
    );
    fireEvent.change(screen.getByLabelText('in now, mm'), { target: { value: '2.6' } });
    expect(screen.getByText(/^No 2\.50 mm is in hand: collect it/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Collect it for the end of the lap' }));
    expect(put()).toMatchObject([{ kind: 'wear', body: { lines: [{ place: '1I', values: [2.6] }] } }]);
    expect(onNext).toHaveBeenCalledOnce();
  });
});
