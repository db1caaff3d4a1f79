// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useWorkedUp } from '../app/useWorkedUp.ts';
import { showPreview, useTapPreview } from '../measuring/tapPreview.ts';

const done: string[] = [];

/** A pad whose tap is answered at once and worked up after. */
function Pad() {
  const follow = useWorkedUp();
  const said = useTapPreview('here');
  return (
    <button
      type="button"
      onClick={() => {
        showPreview({ place: 'here', seen: { lo: 0.1, hi: 0.2, state: 'in-spec' } });
        follow(() => {
          done.push('worked up');
          showPreview(null);
        });
      }}
    >
      {said?.state ?? 'nothing'}
    </button>
  );
}

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['setTimeout', 'requestAnimationFrame', 'clearTimeout', 'cancelAnimationFrame'],
  });
  done.length = 0;
});
afterEach(() => {
  cleanup();
  showPreview(null);
  vi.useRealTimers();
});

const tap = () => fireEvent.click(screen.getByRole('button'));

describe('a tap', () => {
  it('is answered before it is worked up, and worked up soon after', () => {
    render(<Pad />);
    tap();
    expect(screen.getByRole('button').textContent).toBe('in-spec');
    expect(done).toEqual([]);
    act(() => void vi.advanceTimersByTime(200));
    expect(done).toEqual(['worked up']);
    expect(screen.getByRole('button').textContent).toBe('nothing');
  });

  it.each(['keyDown', 'click'] as const)('is worked up before the next thing is done: %s', (next) => {
    render(<Pad />);
    tap();
    fireEvent[next](document.body);
    expect(done).toEqual(['worked up']);
    act(() => void vi.advanceTimersByTime(500));
    expect(done).toEqual(['worked up']);
  });

  it('moves nothing under a finger that only comes down', () => {
    render(<Pad />);
    tap();
    fireEvent.pointerDown(document.body);
    expect(done).toEqual([]);
  });

  it('is worked up where the page goes before it was painted, and where its place does', () => {
    const { unmount } = render(<Pad />);
    tap();
    act(() => void window.dispatchEvent(new Event('pagehide')));
    expect(done).toEqual(['worked up']);
    tap();
    unmount();
    expect(done).toEqual(['worked up', 'worked up']);
    vi.advanceTimersByTime(500);
    expect(done).toHaveLength(2);
  });

  it('says nothing of another place', () => {
    render(<Pad />);
    act(() => showPreview({ place: 'there', seen: { lo: 0.1, hi: null, state: 'loose' } }));
    expect(screen.getByRole('button').textContent).toBe('nothing');
  });
});
