// @vitest-environment happy-dom
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { lashPoints, type Pattern } from '@zero-lash/core/sheets';
import { describe, expect, it } from 'vitest';
import { vTwelve } from '../../core/test/patterns.ts';
import { passedBy } from '../buildPage/atStage.ts';
import type { BuildView } from '../builds/buildView.ts';
import { OneHead } from '../setting/OneHead.tsx';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const inV = (change: Partial<BuildView> = {}): BuildView => {
  const view = build({ job: 'valve-check', rounds: [round({ readings: [] })], ...change }, SCREW);
  const pattern: Pattern = { ...vTwelve, means: SCREW };
  return { ...view, sheet: { ...view.sheet, pattern } } as BuildView;
};
const SHUT = [{ stage: 'set' as const, check: 'unopened B', done: true, by: 'Tobin Hask', at }];
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('one head at a time', () => {
  it('is one tap, on this device too before it is sent, and one tap to open the next', () => {
    show(<OneHead build={inV()} />);
    press('Head B keeps its cover for now');
    expect(put()).toMatchObject([{ body: { stage: 'set', check: 'unopened B', done: true } }]);
    cleanup();
    const shut = inV({ ticks: SHUT });
    show(<OneHead build={shut} />);
    expect(screen.getByRole('status').textContent).toContain('Head B keeps its cover');
    // its points are no part of the lap, and are shown as that
    const bankB = lashPoints(vTwelve).filter(
      ({ cylinder }) => vTwelve.cylinders.find(({ id }) => id === cylinder)!.bank === 'B',
    );
    expect(passedBy(shut, 'set')).toEqual(bankB.map(({ key }) => [key, 'unopened']));
    press('Open head B');
    expect(put().at(-1)).toMatchObject({ body: { check: 'unopened B', done: false } });
  });

  it('is offered of a head that nothing was read of, in a check, to whoever works on it', async () => {
    const [first] = lashPoints(vTwelve);
    const read = inV({ rounds: [round({ readings: [reading(first!.key, 0.22, 0.23, 'in-spec')] })] });
    show(<OneHead build={read} />);
    expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual([
      'Head B keeps its cover for now',
    ]);
    for (const none of [inV({ job: 'rebuild' }), build({ job: 'valve-check' }, SCREW)]) {
      cleanup();
      show(<OneHead build={none} />);
      expect(screen.queryByRole('button')).toBeNull();
    }
    cleanup();
    await act(async () => void (await signIn('viewer')));
    show(<OneHead build={inV({ ticks: SHUT })} />);
    expect(screen.getByRole('status').textContent).toContain('Head B keeps its cover');
    expect(screen.queryByRole('button')).toBeNull();
  });
});
