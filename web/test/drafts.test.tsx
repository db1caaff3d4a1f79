// @vitest-environment happy-dom
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import type { BuildView } from '../builds/buildView.ts';
import { describe, expect, it, vi } from 'vitest';
import { api } from '../app/api.ts';
import { store } from '../app/store.ts';
import { WithReason } from '../app/WithReason.tsx';
import { NewEngineForm } from '../engines/NewEngineForm.tsx';
import { StageNotes } from '../buildPage/StageNotes.tsx';
import { RoundConditions } from '../measuring/RoundConditions.tsx';
import OwnersPage from '../owners/OwnersPage.tsx';
import { InstrumentForm } from '../instruments/InstrumentForm.tsx';
import { StopNotes } from '../turning/StopNotes.tsx';
import { at, atTheBench, build, put, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value;
const leaveField = (label: string) => fireEvent.blur(screen.getByLabelText(label));

describe('the conditions of a round', () => {
  const view = (conditions: BuildView['rounds'][number]['conditions'] = []) =>
    build({ stage: 'as-found', rounds: [round({ conditions })] }, SCREW);
  const shown = (of: BuildView) => show(<RoundConditions build={of} round={of.rounds[0]!} enabled />);
  const body = (change: object) => ({ engineTempC: null, hoursSinceRun: null, condition: null, ...change });

  it('are said as a field is left, by Enter, and as they are chosen, without anything to press', () => {
    shown(view());
    type('Engine, °C', '18');
    expect(put()).toEqual([]);
    leaveField('Engine, °C');
    expect(put()).toMatchObject([{ kind: 'conditions', body: body({ engineTempC: 18 }) }]);
    type('Hours since last run', '12');
    fireEvent.keyDown(screen.getByLabelText('Hours since last run'), { key: 'Enter' });
    expect(put().at(-1)).toMatchObject({ body: { hoursSinceRun: 12 } });
    fireEvent.change(screen.getByLabelText('It is'), { target: { value: 'cold' } });
    expect(put().at(-1)).toMatchObject({ body: { condition: 'cold' } });
    expect(screen.queryByRole('button')).toBeNull();
    expect(store.getState().drafts).toEqual({});
  });

  it('stay as they are typed where they cannot be read, hold nothing else back, and are there again after the page was left', () => {
    const said = [{ ...body({ engineTempC: 18 }), id: 'c', by: 'Tobin Hask', at }] as never;
    shown(view(said));
    type('Engine, °C', 'warm');
    leaveField('Engine, °C');
    expect(screen.getByRole('alert').textContent).toContain('Numbers');
    fireEvent.change(screen.getByLabelText('It is'), { target: { value: 'cold' } });
    expect(put()).toMatchObject([{ body: body({ engineTempC: 18, condition: 'cold' }) }]);
    cleanup();
    shown(view(said));
    expect(value('Engine, °C')).toBe('warm');
    // taken away it is not said any more, and put back as it was nothing is written
    type('Engine, °C', '18');
    leaveField('Engine, °C');
    expect(put()).toHaveLength(1);
    type('Engine, °C', '');
    leaveField('Engine, °C');
    expect(put().at(-1)).toMatchObject({ body: body({}) });
  });
});

describe('forms beside the bench', () => {
  const OWNER = {
    id: 'o',
    name: 'Orrel',
    email: 'old@orrel.example',
    tells: 'mail' as const,
    note: '',
    engines: 2,
    version: 1,
  };
  const owners = (change: object = {}) =>
    vi
      .spyOn(globalThis, 'fetch')
      .mockImplementation(() => Promise.resolve(Response.json([{ ...OWNER, ...change }])));
  const open = async () => fireEvent.click(await screen.findByRole('button', { name: 'Change Orrel' }));

  it('keep what was typed when the page is left, and when somebody else saves the same meanwhile', async () => {
    await signIn('bench');
    owners();
    show(<OwnersPage />);
    await open();
    type('Mail address', 'new@orrel.example');
    // it is told of by the server: the page asks again, and the form is not made anew under the hands
    owners({ version: 2, email: 'theirs@orrel.example', note: 'ring first' });
    await act(async () => void store.dispatch(api.util.invalidateTags(['Owners'])));
    await screen.findByText('saved: theirs@orrel.example');
    expect(value('Mail address')).toBe('new@orrel.example');
    expect(value('Note')).toBe('ring first');
    cleanup();
    show(<OwnersPage />);
    await open();
    expect(value('Mail address')).toBe('new@orrel.example');
  });

  it('begin a set of blades as sets of its unit are made, until something else is typed', () => {
    show(<InstrumentForm onDone={() => undefined} />);
    expect(value('Blades in the set')).toBe('0.05–0.40 by 0.01');
    type('Marked in', 'in');
    expect(value('Blades in the set')).toBe('0.0015, 0.002–0.025 by 0.001');
    type('Blades in the set', '0.002, 0.004');
    type('Marked in', 'mm');
    expect(value('Blades in the set')).toBe('0.002, 0.004');
    cleanup();
    // left without saving it is there again
    show(<InstrumentForm onDone={() => undefined} />);
    expect(value('Blades in the set')).toBe('0.002, 0.004');
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(store.getState().drafts).toEqual({});
  });
});

describe('what was typed and is not kept yet', () => {
  it('stands there again after another stage or stop was looked at, each by itself', () => {
    const notes = (stage: 'wear' | 'set') => (
      <StageNotes buildId="b" notes={[]} job="rebuild" stage={stage} enabled />
    );
    show(notes('wear'));
    type('Note at Wear', 'Lobe of 2E pitted');
    cleanup();
    show(notes('set'));
    expect(value('Note at Set')).toBe('');
    cleanup();
    show(notes('wear'));
    expect(value('Note at Wear')).toBe('Lobe of 2E pitted');
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(put()).toMatchObject([{ kind: 'note', body: { stage: 'wear', text: 'Lobe of 2E pitted' } }]);
    expect(value('Note at Wear')).toBe('');
    cleanup();

    const stop = (angle: number) => <StopNotes buildId="b" known={[]} stage="set" angle={angle} enabled />;
    show(stop(120));
    fireEvent.click(screen.getByRole('button', { name: 'Keep a note at this stop' }));
    type('Note at this stop', 'Use the mirror');
    cleanup();
    show(stop(240));
    expect(screen.queryByLabelText('Note at this stop')).toBeNull();
    cleanup();
    show(stop(120));
    expect(value('Note at this stop')).toBe('Use the mirror');
    fireEvent.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(screen.queryByLabelText('Note at this stop')).toBeNull();
    expect(store.getState().drafts).toEqual({});
  });
});

describe('what is refused', () => {
  it('is said in words at its field: of many blades, which', async () => {
    const said = {
      code: 'invalid',
      detail: 'Something is wrong.',
      fields: [{ path: 'blades.11', message: 'over 5 mm' }],
    };
    vi.spyOn(globalThis, 'fetch').mockImplementation(() =>
      Promise.resolve(Response.json(said, { status: 400 })),
    );
    show(<InstrumentForm onDone={() => undefined} />);
    type('What it is called', 'Long blades');
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText('The 12th blade: over 5 mm.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  });
});

describe('what is typed anywhere', () => {
  it('is there again as a reason is asked for again, until it is done or not wanted', async () => {
    const done: string[] = [];
    const shown = () =>
      show(
        <WithReason
          {...{
            draft: 'strike:r',
            ask: 'Strike out…',
            label: 'Because',
            action: 'Strike it out',
            missing: 'Say why.',
          }}
          onDo={(reason) => done.push(reason) > 0}
        />,
      );
    shown();
    fireEvent.click(screen.getByRole('button', { name: 'Strike out…' }));
    type('Because', 'the cover was on');
    cleanup();
    shown();
    fireEvent.click(screen.getByRole('button', { name: 'Strike out…' }));
    expect(value('Because')).toBe('the cover was on');
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    fireEvent.click(screen.getByRole('button', { name: 'Strike out…' }));
    expect(value('Because')).toBe('');
    type('Because', 'read at the wrong valve');
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Strike it out' })));
    expect(done).toEqual(['read at the wrong valve']);
    expect(store.getState().drafts).toEqual({});
  });

  it('of a new engine is there again after the page was left, and gone once it is not wanted', async () => {
    await store.dispatch(
      api.util.upsertQueryData(
        'sheets' as never,
        undefined as never,
        [
          { id: 's', maker: 'Vessany', name: 'S0 Splitter', status: 'published', usageUnit: 'hours' },
        ] as never,
      ),
    );
    const left = vi.fn();
    show(<NewEngineForm onDone={left} />);
    type('What it is called here', 'Log splitter');
    type('Has run, in hours', '80');
    cleanup();
    show(<NewEngineForm onDone={left} />);
    expect([value('What it is called here'), value('Has run, in hours')]).toEqual(['Log splitter', '80']);
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(left).toHaveBeenCalledOnce();
    expect(store.getState().drafts).toEqual({});
  });
});
