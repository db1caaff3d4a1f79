// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { describe, expect, it, vi } from 'vitest';
import { LastCheck } from '../engines/LastCheck.tsx';
import { SignOff } from '../signoff/SignOff.tsx';
import { atTheBench, build, SCREW, show } from './shownBench.tsx';

atTheBench();

const ENGINE = {
  ...{ id: 'e', name: 'Frost fan 7', usageUnit: 'hours', usage: 500 },
  limits: [
    { point: '1I', min: 0.21, max: 0.29 },
    { point: '1E', min: 0.31, max: 0.39 },
  ],
} as unknown as EngineView;
const type = (label: RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const save = () => fireEvent.click(screen.getByRole('button', { name: 'Plan its recheck from there' }));

describe('an engine in service', () => {
  it('asks about a figure that cannot have been run, and takes it when it is saved once more', async () => {
    const sent: { usage: number; sure: boolean }[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      sent.push(await (input as Request).json());
      return Response.json({ code: 'usage_far', detail: 'More than can have been run.' }, { status: 409 });
    });
    show(<LastCheck engine={ENGINE} />);
    fireEvent.click(screen.getByRole('button', { name: /It is in service/ }));
    type(/Last checked on/, '2026-01-05');
    type(/Its meter then/, '90000');
    type(/Checked by/, 'Its owner');
    save();
    await screen.findByText(/Saved once more/);
    // another figure is asked about again
    type(/Its meter then/, '80000');
    save();
    await waitFor(() => expect(sent).toHaveLength(2));
    await screen.findByText(/Saved once more/);
    save();
    await waitFor(() =>
      expect(sent.map(({ usage, sure }) => [usage, sure])).toEqual([
        [90000, false],
        [80000, false],
        [80000, true],
      ]),
    );
  });

  it('has its recheck planned from when it was last checked, with what gaps are known', async () => {
    const sent: unknown[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      sent.push(await (input as Request).json());
      return Response.json({ code: 'build_open', detail: 'Somebody works on it.' }, { status: 409 });
    });
    show(<LastCheck engine={ENGINE} />);
    fireEvent.click(screen.getByRole('button', { name: /It is in service/ }));
    save();
    expect(screen.getByText('The day it was last checked.')).toBeTruthy();
    expect(screen.getByText(/Who checked it/)).toBeTruthy();
    type(/Last checked on/, '2026-01-05');
    type(/Its meter then/, '1 400');
    type(/Checked by/, 'The owner’s fitter');
    document.querySelector('details')!.open = true;
    fireEvent(document.querySelector('details')!, new Event('toggle'));
    type(/^1I/, 'wide');
    save();
    expect(screen.getByText(/“wide” is not a length/)).toBeTruthy();
    expect(sent).toEqual([]);
    // a slip of the decimal point is asked about, once
    type(/^1I/, '2.4');
    save();
    expect(screen.getByText(/Far outside of .*save once more to keep it/)).toBeTruthy();
    expect(sent).toEqual([]);
    type(/^1I/, '0.24 0.26');
    save();
    await waitFor(() =>
      expect(sent).toEqual([
        {
          ...{ on: '2026-01-05', usage: 1400, by: 'The owner’s fitter', sure: false },
          gaps: [{ point: '1I', reading: { kind: 'bracket', go: 0.24, noGo: 0.26 }, asTyped: '0.24 0.26' }],
        },
      ]),
    );
    // refused, nothing of it is lost
    await screen.findByText(/Somebody works on it/);
    expect(screen.getByLabelText<HTMLInputElement>(/^1I/).value).toBe('0.24 0.26');
    // nor where the page is left
    cleanup();
    show(<LastCheck engine={ENGINE} />);
    fireEvent.click(screen.getByRole('button', { name: /It is in service/ }));
    expect((screen.getByLabelText(/Checked by/) as HTMLInputElement).value).toBe('The owner’s fitter');
  });

  it('is signed by nobody: who checked it last stands where a signature would', () => {
    const lastChecked = { on: '2026-01-05', usage: 1400, by: 'The owner’s fitter' };
    show(<SignOff build={build({ job: 'in-service', stage: 'run-in', lastChecked }, SCREW)} />);
    expect(document.body.textContent).toContain('5 Jan 2026, by The owner’s fitter, at 1400 hours.');
    expect(screen.queryByRole('button', { name: /Sign off/ })).toBeNull();
  });
});
