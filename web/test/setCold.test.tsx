// @vitest-environment happy-dom
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { BuildView } from '../builds/buildView.ts';
import { SetCold } from '../setting/SetCold.tsx';
import { atTheBench, build, plannedRecheck, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const LIMITS = [
  {
    ...{ role: 'intake', min: 0.15, max: 0.2, figure: null, asWritten: '' },
    also: [{ kind: 'other-condition', min: 0.13, max: 0.18, figure: null, asWritten: '0.13–0.18' }],
  },
  { role: 'exhaust', min: 0.2, max: 0.25, figure: null, asWritten: '', also: [] },
];

const hot = (change: Partial<BuildView> = {}): BuildView => {
  const cold = build({ stage: 'as-found', rounds: [round()], ...change }, SCREW);
  return { ...cold, sheet: { ...cold.sheet, condition: 'hot', setCold: cold.setCold } };
};
const SAID: NonNullable<BuildView['setCold']> = {
  figures: [{ role: 'exhaust', min: 0.24, max: 0.3, figure: null, asWritten: '', provisional: true }],
  ...{ foundHot: false, why: 'its boat is ashore', by: 'Osk Velland' },
};

/** What was sent, with a server that has the sheet with these limits. */
function server(limits: readonly object[]) {
  const sent: unknown[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    if (request.method === 'GET') return Response.json({ limits });
    sent.push([new URL(request.url).pathname, await request.json()]);
    return Response.json({ build: 'b', seq: 1, changes: [] });
  });
  return sent;
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const type = (label: RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('an engine that is measured hot and cannot be run', () => {
  it('asks why, and a lead for what the maker does not print: on the loose side', async () => {
    const sent = server(LIMITS);
    act(() => void signIn('lead'));
    show(<SetCold build={hot()} />);
    press(/It cannot be run/);
    await screen.findByText(/The maker’s cold figures: intake 0.13–0.18 mm/);
    expect(document.body.textContent).toMatch(/prints no cold figure for exhaust/);
    press('Set it cold');
    expect(screen.getByText('Say why it cannot be run.')).toBeTruthy();
    expect(screen.getByText('Two figures, such as 0.20–0.25.')).toBeTruthy();
    type(/exhaust, cold/, '0.20-0.26');
    press('Set it cold');
    expect(screen.getByText(/on the loose side: not under/)).toBeTruthy();
    type(/exhaust, cold/, '0.24-0.30');
    type(/Why it cannot/, ' its boat is ashore ');
    press('Set it cold');
    await waitFor(() =>
      expect(sent).toEqual([
        [
          '/api/builds/b/set-cold',
          {
            version: 3,
            setCold: {
              ...{ figures: [{ role: 'exhaust', min: 0.24, max: 0.3 }], why: 'its boat is ashore' },
            },
          },
        ],
      ]),
    );
  });

  it('leaves a provisional gap to a lead, and what is printed to whoever works on it', async () => {
    server(LIMITS);
    show(<SetCold build={hot()} />);
    press(/It cannot be run/);
    await screen.findByText(/Only a lead may give it/);
    expect(screen.getByRole('button', { name: 'Set it cold' })).toHaveProperty('disabled', true);
  });

  it('says so on every page until it was measured hot, and may be taken back until something was set by it', async () => {
    const sent = server(LIMITS);
    show(<SetCold build={hot({ setCold: SAID })} />);
    expect(document.body.textContent).toContain('PROVISIONAL: exhaust 0.24–0.30');
    press('It can be run after all');
    await waitFor(() => expect(sent).toEqual([['/api/builds/b/set-cold', { version: 3, setCold: null }]]));
    cleanup();
    const rounds = [round({ kind: 'proved', readings: [reading('1E', 0.26, 0.27, 'in-spec')] })];
    show(<SetCold build={hot({ setCold: SAID, rounds })} />);
    expect(document.body.textContent).toContain('PROVISIONAL');
    expect(screen.queryByRole('button')).toBeNull();
    cleanup();
    const rechecks = [{ ...plannedRecheck, status: 'done' as const }];
    show(<SetCold build={hot({ setCold: SAID, rechecks })} />);
    expect(document.body.textContent).not.toContain('PROVISIONAL');
    cleanup();
    // nobody asks it of an engine that is measured cold
    show(<SetCold build={build({ stage: 'as-found' }, SCREW)} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
