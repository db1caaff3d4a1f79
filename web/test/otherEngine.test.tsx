// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { OtherEngine } from '../measuring/OtherEngine.tsx';
import { TurnedBack } from '../measuring/StrikeOut.tsx';
import { atTheBench, put, reading, show } from './shownBench.tsx';

atTheBench();

const at = (point: string, crankAngle: number | null) => ({
  ...reading(point, 0.24, 0.26, 'in-spec'),
  crankAngle,
});
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

describe('what was read of another engine', () => {
  const READ = [at('1I', 0), at('1E', 0), { ...at('2I', 0), roundId: 'another' }];

  it('is moved to one where the same is measured, whole or in part, and stays chosen where it is refused', async () => {
    const sent: unknown[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const request = input as Request;
      if (request.method === 'GET')
        return Response.json([
          { roundId: 'r2', engine: 'Frost fan 8', build: 2 },
          { roundId: 'r3', engine: 'Frost fan 9', build: 1 },
        ]);
      sent.push([new URL(request.url).pathname, await request.json()]);
      return Response.json({ code: 'wrong_round', detail: 'Not measured there now.' }, { status: 409 });
    });
    show(<OtherEngine buildId="b" roundId="r" readings={READ} />);
    press(/It was read of another engine/);
    fireEvent.change(await screen.findByLabelText('It was read of'), { target: { value: 'r3' } });
    // of another round nothing is offered
    expect(screen.queryByLabelText(/^2I/)).toBeNull();
    fireEvent.click(screen.getByLabelText(/^1E/));
    press('Move the reading');
    await waitFor(() => expect(sent).toEqual([['/api/rounds/r/moved', { to: 'r3', points: ['1I'] }]]));
    await screen.findByText(/Not measured there now/);
    expect(screen.getByLabelText<HTMLInputElement>(/^1E/).checked).toBe(false);
  });

  it('has nowhere to go where no other engine is measured now, and that is said', async () => {
    vi.spyOn(globalThis, 'fetch').mockImplementation(async () => Response.json([]));
    show(<OtherEngine buildId="b" roundId="alone" readings={[{ ...READ[0]!, roundId: 'alone' }]} />);
    press(/It was read of another engine/);
    await screen.findByText(/At no other engine the same is measured now/);
    expect(screen.queryByRole('button', { name: /^Move/ })).toBeNull();
  });
});

describe('an engine that had been turned back', () => {
  it('has what was read at that stop struck out, after it is asked, and nothing of another stop', () => {
    const readings = [at('1I', 1), at('1E', 2), at('2I', 180), at('2E', null)];
    show(<TurnedBack buildId="b" readings={readings} at={0} />);
    press(/turned back before this stop/);
    expect(put()).toEqual([]);
    press('It was not');
    press(/turned back before this stop/);
    press('Strike out what was read here');
    expect(put().map(({ body }) => body)).toMatchObject([
      { point: '1I', reading: { tries: [] }, reason: 'the engine had been turned back' },
      { point: '1E', reading: { tries: [] } },
    ]);
  });

  it('is not asked about where nothing was read there, or nobody knows where the crank stands', () => {
    show(<TurnedBack buildId="b" readings={[at('2I', 180)]} at={0} />);
    show(<TurnedBack buildId="b" readings={[at('2I', 180)]} at={null} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
