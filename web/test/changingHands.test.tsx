// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { OutboxItem } from '../app/outboxItem.ts';
import { outboxRead } from '../app/outbox.ts';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { store } from '../app/store.ts';
import { useLeave } from '../app/useLeave.ts';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { atTheBench, show, signIn } from './shownBench.tsx';

atTheBench();
beforeEach(() => signIn('bench'));

const waiting = (personId: string, by: string): OutboxItem =>
  ({
    ...{ key: `of ${by}`, kind: 'tick', within: 'b', about: '“Cover on”', said: 'The tick of “Cover on”' },
    ...{ method: 'POST', path: 'builds/b/ticks', body: {}, buildId: 'b', refused: null, personId, by },
  }) as unknown as OutboxItem;
const TOBINS = waiting('tobin', 'Tobin Hask');
const OSKS = waiting('osk', 'Osk Velland');

function Leave({ signOut }: { readonly signOut: () => Promise<{ error?: unknown }> }) {
  const { leave, leaving, unsent, stillIn } = useLeave(signOut);
  return (
    <>
      <button type="button" onClick={() => void leave()}>
        {leaving ? 'sending' : unsent ? 'leave it' : 'out'}
      </button>
      {stillIn && 'still in'}
    </>
  );
}
const press = () => fireEvent.click(screen.getByRole('button'));

describe('who leaves the bench to the next', () => {
  it('is signed out only when what they tapped a moment ago is sent, whatever waits of others', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const signOut = vi.fn(async () => ({}));
    store.dispatch(outboxRead([TOBINS, OSKS]));
    show(<Leave signOut={signOut} />);
    press();
    await waitFor(() => expect(screen.getByRole('button').textContent).toBe('sending'));
    await vi.advanceTimersByTimeAsync(120);
    expect(signOut).not.toHaveBeenCalled();
    store.dispatch(outboxRead([OSKS]));
    await waitFor(() => expect(signOut).toHaveBeenCalledOnce());
    vi.useRealTimers();
  });

  it('leaves it on the device at a second word, where it cannot be sent', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const signOut = vi.fn(async () => ({}));
    store.dispatch(outboxRead([TOBINS]));
    show(<Leave signOut={signOut} />);
    press();
    await vi.advanceTimersByTimeAsync(7000);
    await waitFor(() => expect(screen.getByRole('button').textContent).toBe('leave it'));
    expect(signOut).not.toHaveBeenCalled();
    press();
    await waitFor(() => expect(signOut).toHaveBeenCalledOnce());
    vi.useRealTimers();
  });

  it('is told where the server does not answer, and is out where the session had ended', async () => {
    let error: unknown = { status: 'FETCH_ERROR', error: 'no network' };
    show(<Leave signOut={async () => ({ error })} />);
    press();
    await screen.findByText('still in');
    error = { status: 401, data: { code: 'unauthenticated', detail: 'Sign in.' } };
    press();
    await waitFor(() => expect(screen.queryByText('still in')).toBeNull());
  });
});

describe('a step that waits for what another has still to send', () => {
  it('says whose it is, and nothing of others where it is one’s own', () => {
    store.dispatch(outboxRead([TOBINS, OSKS, { ...waiting('mira', 'Mira'), buildId: 'another' }]));
    show(<StillUnsent buildId="b" step="the build is signed off" />);
    const said = screen.getByRole('alert').textContent;
    expect(said).toContain('the build is signed off when the server has it');
    expect(said).toContain('What Osk Velland did is sent when Osk Velland signs in on this device again.');
    expect(said).not.toContain('Tobin');
    expect(said).not.toContain('Mira');
  });
});
