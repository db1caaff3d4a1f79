import { TOPICS } from '@zero-lash/contract/live';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, sentHere, write } from '../app/api.ts';
import type { AppDispatch } from '../app/store.ts';
import { changesHeard } from '../live/changes.ts';

describe('what others changed', () => {
  const asked: string[][] = [];
  const dispatch = ((action: { payload: string[] }) => {
    if (api.util.invalidateTags.match(action)) asked.push([...action.payload].sort());
  }) as unknown as AppDispatch;
  const SOMEBODY = '3f0c2f63-2f2b-4d4c-9d6e-0a1d6f1c9a10';
  beforeEach(() => {
    asked.length = 0;
    vi.useFakeTimers();
    return () => void vi.useRealTimers();
  });

  it('is asked for again, together where it comes together', () => {
    const heard = changesHeard(dispatch);
    heard.told({ topics: ['drawer'], write: SOMEBODY });
    heard.told({ topics: ['letters', 'drawer'], write: null });
    expect(asked).toEqual([]);
    vi.runAllTimers();
    expect(asked).toEqual([['Drawer', 'Mailbox']]);
    heard.told({ topics: ['sheets'], write: SOMEBODY });
    vi.runAllTimers();
    expect(asked[1]).toContain('Sheet');
  });

  it('is no news to the page that did it', () => {
    const heard = changesHeard(dispatch);
    const { headers } = write('POST', 'drawer/moves');
    sentHere(SOMEBODY);
    heard.told({ topics: ['drawer'], write: headers['idempotency-key'] });
    heard.told({ topics: ['usage'], write: SOMEBODY });
    vi.runAllTimers();
    expect(asked).toEqual([]);
  });

  it('is shown by something, whatever it is of; after a silence everything is asked for but a build, which says how far it is', () => {
    const heard = changesHeard(dispatch);
    for (const topic of TOPICS) {
      heard.told({ topics: [topic], write: null });
      vi.runAllTimers();
      expect(asked.at(-1), topic).not.toEqual([]);
    }
    heard.everything();
    vi.runAllTimers();
    expect(asked.at(-1)).toEqual(expect.arrayContaining(['Today', 'Session', 'Sheet', 'Drawer']));
    expect(asked.at(-1)).not.toContain('Build');
  });
});
