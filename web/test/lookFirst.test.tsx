// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { measuredPoints } from '@zero-lash/core/measuring';
import { describe, expect, it } from 'vitest';
import { store } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { enginesApi } from '../engines/endpoints.ts';
import { LookFirst } from '../setting/LookFirst.tsx';
import { at, atTheBench, build, put, reading, round, SCREW, show } from './shownBench.tsx';

atTheBench();

const knew = (lo: number, hi: number) =>
  store.dispatch(
    enginesApi.util.upsertQueryData('lastGaps', 'e', [
      {
        ...{ point: '1I', round: 'proved', buildId: 'before', at, usage: 400, lo, hi, floor: true },
        ...{ verdict: 'in-spec', onLimit: false, limits: null },
      },
    ]),
  );
const shown = (lo: number, hi: number, change: Partial<BuildView> = {}) => {
  cleanup();
  const read = reading('1I', lo, hi, lo < 0.21 ? 'tight' : 'loose');
  const view = build({ job: 'valve-check', rounds: [round({ readings: [read] })], ...change }, SCREW);
  const point = measuredPoints(view.sheet).find(({ key }) => key === '1I')! as never;
  show(
    <LookFirst build={view} point={point} reading={read}>
      The form
    </LookFirst>,
  );
  return screen.queryByText('The form') !== null;
};

describe('before a point is set', () => {
  it('what is far out is looked at, and one tap says that it is sound', async () => {
    await knew(0.24, 0.25);
    expect(shown(0.05, 0.06)).toBe(false);
    expect(screen.getByText(/It is far tight/).textContent).toContain('look at: leak-down of its cylinder');
    fireEvent.click(screen.getByRole('button', { name: 'Looked at, sound' }));
    expect(put()).toMatchObject([{ kind: 'tick', body: { stage: 'set', check: 'looked 1I', done: true } }]);
  });

  it('so is what moved fast since it was last known, with what it was then', async () => {
    await knew(0.27, 0.28);
    expect(shown(0.17, 0.18)).toBe(false);
    expect(screen.getByText(/It moved fast: 0.27–0.28/).textContent).toContain('at 400 hours (1 Jan 2031)');
  });

  it('nothing else is asked: not what crept, was looked at, was begun, or never was nearer', async () => {
    await knew(0.24, 0.25);
    expect(shown(0.17, 0.18)).toBe(true);
    const looked = { stage: 'set', check: 'looked 1I', done: true, by: 'Osk', at, earlier: [] } as never;
    expect(shown(0.05, 0.06, { ticks: [looked] })).toBe(true);
    const read = reading('1I', 0.05, 0.06, 'tight');
    // a rebuild has its parts measured
    expect(shown(0.05, 0.06, { job: 'rebuild' })).toBe(true);
    expect(shown(0.05, 0.06, { rounds: [round({ kind: 'as-set', readings: [read] })] })).toBe(true);
  });
});
