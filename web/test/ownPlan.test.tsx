// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { EnginePlan, EngineView } from '@zero-lash/contract/engines';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { GivePlan, LookedAt } from '../engines/OwnPlan.tsx';
import { readPlan, stepsTyped, FRESH_STEP } from '../sheets/planSteps.ts';
import { atTheBench, show, signIn } from './shownBench.tsx';

atTheBench();
afterEach(() => vi.restoreAllMocks());

const STEP = {
  ...{ afterUsage: 250, afterDays: 365, afterCycles: null, before: '10-01', until: '03-31' },
  ...{ season: 'the first frost', points: [] as string[] },
};
const plan = (change: Partial<EnginePlan> = {}): EnginePlan => ({ steps: [STEP], own: null, ...change });
const OWN = { why: 'It runs every night', by: 'Ilse Marrand', at: '2031-01-01T10:00:00Z' };
const engine = (of: EnginePlan) =>
  ({
    ...{ id: 'e', name: 'Frost fan 7', usageUnit: 'hours', version: 3, plan: of },
    limits: ['1I', '1E', '2I'].map((point) => ({ point, min: 0.1, max: 0.2 })),
  }) as unknown as EngineView;

/** What was sent, with a server that answers so. */
function server(answer: (body: Record<string, unknown>) => Response) {
  const sent: Record<string, unknown>[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    if (request.method !== 'PUT') return Response.json({});
    const body = (await request.json()) as Record<string, unknown>;
    sent.push(body);
    return answer(body);
  });
  return sent;
}
const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('a plan as it is typed', () => {
  it('comes back as it was laid out', () => {
    const typed = stepsTyped([STEP, { ...STEP, before: null, until: null, points: ['1I', '2E'] }]);
    expect(typed[0]).toMatchObject({ afterUsage: '250', before: '1.10.', until: '31.3.', points: '' });
    expect(readPlan(typed, 'hours', new Set(['1I', '2E'])).plan).toEqual([
      STEP,
      { ...STEP, before: null, until: null, points: ['1I', '2E'] },
    ]);
  });

  it.each([
    [{}, 'plan.0.afterUsage', 'A recheck needs running, days, heat cycles or a season.'],
    [{ afterUsage: 'soon' }, 'plan.0.afterUsage', '“soon” is not a number.'],
    [{ afterDays: '0' }, 'plan.0.afterDays', expect.any(String)],
    [{ afterDays: '9', before: '31.4.' }, 'plan.0.before', 'day and month, such as 1.10.'],
    [{ afterDays: '9', until: '31.3.' }, 'plan.0.before', 'A season that ends has a first day.'],
    [{ afterDays: '9', points: '1I, 9z' }, 'plan.0.points', 'There is no point 9Z on this head.'],
  ])('says of %o what is wrong with it, where it stands', (step, field, words) => {
    const read = readPlan([{ ...FRESH_STEP, ...step }], 'hours', new Set(['1I']));
    expect(read.plan).toBeNull();
    expect(read.errors[field]).toEqual(words);
  });
});

describe('what an engine is looked at by', () => {
  it('is said, with whose plan it is; only a lead gives it another', async () => {
    const { unmount } = show(<LookedAt engine={engine(plan())} onChange={() => undefined} />);
    expect(screen.getByText(/250 hours or 365 days or before the first frost/)).toBeTruthy();
    expect(screen.getByText('As its spec sheet says.')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
    unmount();
    await signIn('lead');
    const asked = vi.fn();
    show(<LookedAt engine={engine(plan({ own: OWN }))} onChange={asked} />);
    expect(screen.getByText(/A plan of its own, by Ilse Marrand/).textContent).toContain(
      'It runs every night',
    );
    press('Change its plan');
    expect(asked).toHaveBeenCalledOnce();
  });

  it('is given with a reason, or goes back to its sheet', async () => {
    await signIn('lead');
    const sent = server(() => Response.json(engine(plan())));
    const done = vi.fn();
    const { unmount } = show(<GivePlan engine={engine(plan())} plan={plan()} onDone={done} />);
    expect(screen.queryByRole('button', { name: 'By its sheet again' })).toBeNull();
    type('at points', '1e 2i');
    press('Keep its plan');
    expect(await screen.findByText('Say in a line why.')).toBeTruthy();
    type('Because', 'Frozen logs');
    press('Keep its plan');
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent).toEqual([{ steps: [{ ...STEP, points: ['1E', '2I'] }], why: 'Frozen logs', version: 3 }]);
    unmount();
    show(<GivePlan engine={engine(plan({ own: OWN }))} plan={plan({ own: OWN })} onDone={done} />);
    type('Because', 'As the others');
    press('By its sheet again');
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toEqual({ steps: null, why: 'As the others', version: 3 });
  });

  it('is kept in the form where somebody was there before, beside what they gave it', async () => {
    await signIn('lead');
    const stale = {
      type: 'about:blank',
      title: '',
      status: 409,
      code: 'stale',
      detail: 'Somebody changed this.',
    };
    const sent = server(({ version }) =>
      version === 3
        ? Response.json({ ...stale, current: { version: 8 } }, { status: 409 })
        : Response.json(engine(plan())),
    );
    const done = vi.fn();
    show(<GivePlan engine={engine(plan({ own: OWN }))} plan={plan()} onDone={done} />);
    type('or days', '90');
    type('Because', 'Frozen logs');
    press('Keep its plan');
    const form = await screen.findByRole('region', { name: /^A plan of its own/ });
    await within(form).findByText(/by Ilse Marrand: It runs every night/);
    expect(screen.getByLabelText('or days')).toHaveProperty('value', '90');
    press('Keep mine all the same');
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent.map(({ version }) => version)).toEqual([3, 8]);
  });
});
