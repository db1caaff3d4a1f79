// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, renderHook, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { Access } from '../buildPage/OpenUp.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { HotClock, useCooled } from '../measuring/HotClock.tsx';
import { atTheBench, build, put, round, SCREW, show } from './shownBench.tsx';

atTheBench();

const minutesAgo = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
/** A hot engine, with what was said of when it was shut down. */
function hot(said: readonly string[], hotMinutes: number | null = 30): BuildView {
  const view = build({ stage: 'as-found' }, SCREW);
  const conditions = said.map((at, index) => ({
    ...{ id: `c${index}`, roundId: 'r', engineTempC: 80, hoursSinceRun: 0, condition: 'hot' as const },
    ...{ by: 'Osk Velland', at },
  }));
  const readiness = {
    coldHours: null,
    noSpark: false,
    hotMinutes,
    barred: false,
    doorsMinutes: null,
    access: ['Plugs', 'Tank'],
  };
  return {
    ...view,
    sheet: { ...view.sheet, condition: 'hot', pattern: { ...view.sheet.pattern, readiness } },
    rounds: [round({ conditions })],
  };
}
function shown(view: BuildView) {
  cleanup();
  show(<HotClock build={view} round={view.rounds[0]!} enabled />);
  return screen.queryByRole('status')?.textContent ?? null;
}

describe('the clock of a hot engine', () => {
  it('runs from when it was shut down, and what is left waits when its time is over', () => {
    expect(shown(hot([]))).toContain('start the clock');
    fireEvent.click(screen.getByRole('button', { name: 'Shut down now' }));
    expect(put()).toMatchObject([{ kind: 'conditions', body: { hoursSinceRun: 0, condition: 'hot' } }]);
    expect(shown(hot([minutesAgo(12.5)]))).toContain(
      'Shut down 12 min ago: the sheet’s figures hold for 18 min more',
    );
    expect(shown(hot([minutesAgo(31)]))).toContain('What is left waits');
    // run warm again, the clock is a new one
    expect(shown(hot([minutesAgo(50), minutesAgo(3.5)]))).toContain('27 min more');
    expect(shown(hot([minutesAgo(31)], null))).toContain('does not say how long');
  });

  it('lets no point come up past its time, and every one again once it was run warm', () => {
    const at = (said: readonly string[], visit: string) => ({ view: hot(said), visit });
    const { result, rerender } = renderHook(({ view, visit }) => useCooled(view, 'as-found', visit), {
      initialProps: at([minutesAgo(31)], '1I'),
    });
    expect(result.current).toBe(true);
    rerender(at([minutesAgo(31), minutesAgo(0)], '1I'));
    expect(result.current).toBe(false);
    // what was begun in time is ended there
    rerender(at([minutesAgo(29)], '1E'));
    expect(result.current).toBe(false);
  });

  it('is none where the sheet is cold', () => {
    const cold = build({ stage: 'as-found', rounds: [round()] }, SCREW);
    expect(shown(cold)).toBeNull();
  });

  it('and what comes off for access is listed once, and goes back the other way round', () => {
    show(<Access build={hot([])} going="off" />);
    expect(document.body.textContent).toContain('Comes off for access: Plugs, Tank.');
    cleanup();
    show(<Access build={hot([])} going="back" />);
    expect(document.body.textContent).toContain('Tank, Plugs.');
  });
});
