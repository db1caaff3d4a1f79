import { limitedPoints } from '@zero-lash/core/measuring';
// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { inlineFour, inlineSix } from '../../core/test/patterns.ts';
import { feelChosen } from '../app/preferences.ts';
import { store } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { CrankWheel } from '../drawings/CrankWheel.tsx';
import { instrumentsApi } from '../instruments/endpoints.ts';
import { draftKey } from '../app/drafts.ts';
import { AtTheLimit } from '../measuring/AtTheLimit.tsx';
import { Measure } from '../measuring/Measure.tsx';
import { triesMade } from '../measuring/tries.ts';
import { useTurning } from '../turning/useTurning.ts';
import { atTheBench, build, put, round, SCREW, show } from './shownBench.tsx';

atTheBench();

/** The bench has a set of blades; intakes are to be 0.21 to 0.29. */
const owns = (blades: readonly number[]) =>
  store.dispatch(
    instrumentsApi.util.upsertQueryData('tools', undefined, {
      benches: [{ id: 'h', name: 'Bench 1', bladeSetId: 'z', maxStack: 1, version: 1 }],
      instruments: [
        {
          ...{ id: 'z', kind: 'blade-set', name: 'Set', unit: 'mm', blades, missing: [], worn: [] },
          ...{ measured: [], uncertainty: 0.01, active: true, overdue: false },
        },
      ],
    } as never),
  );
const onNext = vi.fn();
const onWalk = vi.fn();

interface AtPointProps {
  readonly view: BuildView;
  readonly point: string;
  /** points of the stop, and those of them that stand side by side */
  readonly felt?: readonly string[];
  readonly beside?: readonly string[];
  readonly onSelect?: (key: string) => void;
}

function AtPoint({ view, point, felt = [], beside = [], onSelect = () => undefined }: AtPointProps) {
  const here = { ...view.rounds.at(-1)!, waiting: new Set<string>() };
  const turning = useTurning(view, here, new Set());
  const points = limitedPoints(view.sheet);
  const feltAt = (keys: readonly string[]) =>
    points
      .filter(({ key }) => keys.includes(key))
      .map((each) => ({
        point: each,
        round: here,
        toFeel: !readings().some(({ body }) => body['point'] === each.key),
      }));
  return (
    <Measure
      build={view}
      round={here}
      beside={feltAt(beside)}
      feltHere={() => feltAt(felt)}
      point={points.find(({ key }) => key === point)!}
      turning={turning}
      blind={false}
      onNext={onNext}
      onSelect={onSelect}
      onWalk={onWalk}
    />
  );
}

const BLADES = [0.18, 0.2, 0.21, 0.22, 0.25, 0.28, 0.29, 0.3];
async function measures(
  school: 'go-no-go' | 'blade-by-blade' | 'steps' | 'indicator',
  change: Partial<BuildView> = {},
  means = SCREW,
) {
  onNext.mockClear();
  onWalk.mockClear();
  store.dispatch(triesMade({ place: draftKey('r', '1I'), tries: [] }));
  store.dispatch(feelChosen(school));
  await owns(BLADES);
  show(
    <AtPoint
      view={build({ stage: 'as-found', rounds: [round({ kind: 'as-found' })], ...change }, means)}
      point="1I"
    />,
  );
}
const entry = () => screen.getByRole<HTMLInputElement>('textbox', { name: /^Gap at 1I/ });
const types = (text: string) => {
  fireEvent.change(entry(), { target: { value: text } });
  fireEvent.submit(entry().closest('form')!);
};
const pad = (blade: string, name: string) =>
  within(screen.getByRole('group', { name: blade })).getByRole('button', { name });
const readings = () =>
  put().filter(({ kind }) => kind === 'reading') as unknown as { body: Record<string, unknown> }[];

describe('measuring by go and no-go', () => {
  it('is two taps where the point is in its band, and goes on by itself', async () => {
    await measures('go-no-go');
    fireEvent.click(pad('Go blade', 'goes'));
    expect(readings()).toEqual([]);
    fireEvent.click(pad('No-go blade', 'won’t'));
    await waitFor(() => expect(readings()).toHaveLength(1));
    expect(readings()[0]!.body).toMatchObject({
      point: '1I',
      reading: {
        kind: 'tries',
        tries: [
          { thickness: 0.21, result: 'goes' },
          { thickness: 0.29, result: 'wont' },
        ],
      },
    });
    expect(onNext).toHaveBeenCalledOnce();
  });

  it('keeps what is out at once: a screw’s goes on, and a piece’s stays to be narrowed for choosing it', async () => {
    await measures('go-no-go');
    fireEvent.click(pad('Go blade', 'won’t'));
    await waitFor(() => expect(onNext).toHaveBeenCalledOnce());
    expect(readings()).toMatchObject([
      { body: { reading: { tries: [{ thickness: 0.21, result: 'wont' }] } } },
    ]);
    cleanup();
    await measures('go-no-go', {}, inlineSix.means);
    fireEvent.click(pad('Go blade', 'won’t'));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Take back' })).toBeTruthy());
    expect(readings()).toHaveLength(2);
    expect(onNext).not.toHaveBeenCalled();
  });
});

describe('measuring blade by blade', () => {
  /** Two valves of a stop, walked from the first of them as the page is sent to each. */
  function Walk({ felt }: { readonly felt: readonly string[] }) {
    const [point, setPoint] = useState(felt[0]!);
    const view = build({ stage: 'as-found', rounds: [round({ kind: 'as-found' })] }, SCREW);
    return <AtPoint view={view} point={point} felt={felt} onSelect={setPoint} />;
  }
  const at = () => screen.getByRole('textbox').getAttribute('aria-label')!.split(' ')[2]!.replace(',', '');

  it('takes one blade over every point of the stop before the next blade, and goes on after the last', async () => {
    for (const key of ['1I', '2I', '3I']) store.dispatch(triesMade({ place: draftKey('r', key), tries: [] }));
    await measures('blade-by-blade');
    cleanup();
    show(<Walk felt={['1I', '2I', '3I']} />);
    const walked: string[] = [];
    for (const [blade, answer] of [
      ['Go blade', 'goes'],
      ['Go blade', 'goes'],
      ['Go blade', 'goes'],
      ['No-go blade', 'won’t'],
      ['No-go blade', 'won’t'],
      ['No-go blade', 'won’t'],
    ] as const) {
      walked.push(at());
      // a blade is not moved to the next valve as fast as a finger bounces
      const pressed = new MouseEvent('click', { bubbles: true });
      Object.defineProperty(pressed, 'timeStamp', { value: walked.length * 1000 });
      fireEvent(pad(blade, answer), pressed);
      await waitFor(() => expect(readings()).toHaveLength(Math.max(0, walked.length - 3)));
      if (walked.length < 6) await waitFor(() => expect(at()).not.toBe(walked.at(-1)));
    }
    expect(walked).toEqual(['1I', '2I', '3I', '1I', '2I', '3I']);
    expect(readings().map(({ body }) => body['point'])).toEqual(['1I', '2I', '3I']);
    expect(onNext).toHaveBeenCalledOnce();
  });

  it('shows two valves of a cylinder side by side, and keeps what is said of the other', async () => {
    await measures('go-no-go');
    cleanup();
    const view = build({ stage: 'as-found', rounds: [round({ kind: 'as-found' })] }, SCREW);
    show(<AtPoint view={view} point="1I" beside={['1I', '2I']} />);
    fireEvent.click(pad('Go blade, 2I', 'goes'));
    fireEvent.click(pad('Go blade', 'goes'));
    fireEvent.click(pad('No-go blade, 2I', 'won’t'));
    await waitFor(() => expect(readings()).toHaveLength(1));
    expect(readings()[0]!.body).toMatchObject({ point: '2I' });
    expect(onNext).not.toHaveBeenCalled();
    fireEvent.click(pad('No-go blade', 'won’t'));
    await waitFor(() => expect(readings()).toHaveLength(2));
    expect(readings()[1]!.body).toMatchObject({ point: '1I' });
  });
});

describe('a valve with a hollow', () => {
  it('is felt by itself, whichever of the two is selected', async () => {
    await measures('go-no-go');
    cleanup();
    const mark = { kind: 'mark', part: 'follower', place: '2I', damage: 'hollow', note: '', gone: false };
    const wear = [{ id: 'w', by: 'Osk Velland', at: '2031-01-01T08:00:00Z', lines: [mark] }] as never;
    const view = (marks: BuildView['wear']) =>
      build({ stage: 'as-found', rounds: [round({ kind: 'as-found' })], wear: marks }, SCREW);
    show(<AtPoint view={view([])} point="1I" beside={['1I', '2I']} />);
    expect(screen.queryByRole('group', { name: 'Go blade, 2I' })).not.toBeNull();
    cleanup();
    show(<AtPoint view={view(wear)} point="1I" beside={['1I', '2I']} />);
    expect(screen.queryByRole('group', { name: 'Go blade, 2I' })).toBeNull();
    expect(screen.queryByRole('group', { name: 'Go blade' })).not.toBeNull();
  });
});

describe('an upper limit that a blade just goes at', () => {
  it('is explained with what is taken over it, until somebody has read it', () => {
    const [point] = limitedPoints(build({}, SCREW).sheet);
    const at = (allowOver: number, hi: number | null, lo = 0.29) => (
      <AtTheLimit point={{ ...point!, allowOver }} gap={{ lo, hi }} />
    );
    show(at(0, 0.3));
    expect(screen.getByRole('status').textContent).toMatch(/is 0\.29.mm, or a little more\. Nothing over it/);
    cleanup();
    show(at(0.01, 0.3));
    expect(screen.getByRole('status').textContent).toContain('over it is taken here, as the allowance says');
    cleanup();
    show(at(0, 0.29, 0.28));
    expect(screen.queryByRole('status')).toBeNull();
    cleanup();
    show(at(0, null));
    fireEvent.click(screen.getByRole('button', { name: 'Read' }));
    expect(screen.queryByRole('status')).toBeNull();
  });
});

describe('a gap that is typed', () => {
  it('is a bracket by two figures, kept with what was typed', async () => {
    await measures('steps');
    types('0.22 0.25');
    await waitFor(() => expect(readings()).toHaveLength(1));
    expect(readings()[0]!.body).toMatchObject({
      asTyped: '0.22 0.25',
      reading: { kind: 'bracket', go: 0.22, noGo: 0.25 },
    });
    expect(entry().value).toBe('');
  });

  it('is asked about where it looks like a slip, loses nothing and pushes no answer', async () => {
    await measures('steps');
    types('2.5');
    const question = screen.getByRole('alert');
    expect(question.textContent).toMatch(/2\.50\smm is far outside the limits/);
    expect([readings(), entry().value]).toEqual([[], '2.5']);
    expect(document.activeElement).toBe(question);
    fireEvent.click(screen.getByRole('button', { name: 'Change it' }));
    expect([screen.queryByRole('alert'), entry().value]).toEqual([null, '2.5']);
    types('2.5');
    fireEvent.click(screen.getByRole('button', { name: /^Use 0\.25/ }));
    await waitFor(() => expect(readings()).toHaveLength(1));
    expect(readings()[0]!.body).toMatchObject({ reading: { kind: 'drag', blade: 0.25 } });
    expect(readings()[0]!.body['doubtKept']).not.toBe(true);
  });

  it('says what is no length, and keeps it to be put right', async () => {
    await measures('steps');
    types('wide');
    expect(screen.getByText(/not a length/)).toBeTruthy();
    expect(entry().getAttribute('aria-invalid')).toBe('true');
    expect([readings(), entry().value]).toEqual([[], 'wide']);
  });

  it('takes a blade with what it does by one key more, and takes it back by Backspace', async () => {
    await measures('steps');
    const key = (pressed: string) => fireEvent.keyDown(entry(), { key: pressed });
    fireEvent.change(entry(), { target: { value: '0.22' } });
    key('g');
    await waitFor(() => expect(screen.getByRole('button', { name: 'Take back' })).toBeTruthy());
    expect(entry().value).toBe('');
    key('Backspace');
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Take back' })).toBeNull());
    expect(readings()).toEqual([]);
    key('ArrowRight');
    expect(onWalk).toHaveBeenCalledWith('right');
    // with something typed the arrows are the field's own
    fireEvent.change(entry(), { target: { value: '0.2' } });
    key('ArrowRight');
    expect(onWalk).toHaveBeenCalledOnce();
  });

  it('does not take a key of the page for an entry: the unit changes, and a key with nothing to say is none', async () => {
    await measures('steps');
    // whether the key is left to the entry, which then shows it
    const leaves = (pressed: string) => fireEvent.keyDown(entry(), { key: pressed });
    expect(store.getState().preferences.unit).toBeNull();
    expect(leaves('u')).toBe(false);
    expect(store.getState().preferences.unit).toBe('thou');
    expect(leaves('U')).toBe(false);
    expect(store.getState().preferences.unit).toBe('mm');
    expect(leaves('d')).toBe(false);
    // what goes on from figures is an entry
    fireEvent.change(entry(), { target: { value: '6 tho' } });
    expect(leaves('u')).toBe(true);
  });

  it('that no blade passed may rock, and is answered so', async () => {
    // a piece is chosen by the figure: what is out is narrowed
    await measures('steps', {}, inlineSix.means);
    const rocks = () => screen.queryByRole('button', { name: 'Rocks at the gap, no blade enters' });
    expect(rocks()).toBeNull();
    types('0.21 w');
    await waitFor(() => expect(rocks()).toBeTruthy());
    expect(screen.getByText(/Felt across the gap, up and down/)).toBeTruthy();
  });

  it('contradicting itself is said, decides nothing, and leaves both ways out', async () => {
    await measures('steps');
    types('0.25 g');
    await waitFor(() => expect(screen.getByRole('button', { name: 'Take back' })).toBeTruthy());
    types('0.22 w');
    await waitFor(() => expect(screen.getByText(/contradict each other/)).toBeTruthy());
    fireEvent.click(screen.getByRole('button', { name: 'Take the last one back' }));
    await waitFor(() => expect(screen.queryByText(/contradict each other/)).toBeNull());
  });

  it('by an indicator is a value with the indicator’s own spread, and no blade', async () => {
    await measures('indicator');
    types('0.24');
    await waitFor(() => expect(readings()).toHaveLength(1));
    expect(readings()[0]!.body).toMatchObject({ reading: { kind: 'value', value: 0.24 } });
  });
});

describe('the crank wheel', () => {
  const wheel = (angle: number, turned?: (angle: number) => void) =>
    show(
      <CrankWheel
        pattern={inlineFour}
        angle={angle}
        onTurn={turned}
        stops={[
          { angle: 0, place: 'done' },
          { angle: 180, place: 'here' },
          { angle: 540, place: 'to-come' },
        ]}
        label="Crank"
      />,
    );

  it('is turned by keys, one degree or ten, from stop to stop, and round its two turns', () => {
    const turned = vi.fn();
    wheel(719, turned);
    const slider = screen.getByRole('slider', { name: 'Crank' });
    for (const [key, shiftKey, to] of [
      ['ArrowRight', false, 0],
      ['ArrowRight', true, 10],
      ['ArrowLeft', true, 0],
      ['PageDown', false, 180],
      ['PageDown', false, 540],
      ['PageUp', false, 180],
      ['Home', false, 0],
      ['ArrowLeft', false, 719],
    ] as const) {
      fireEvent.keyDown(slider, { key, shiftKey });
      expect(turned, key).toHaveBeenLastCalledWith(to);
    }
    turned.mockClear();
    fireEvent.keyDown(slider, { key: 'Enter' });
    expect(turned).not.toHaveBeenCalled();
  });

  it('says where it stands and what may be measured there; only looked at, it is a drawing', () => {
    const { unmount } = wheel(0, () => undefined);
    const slider = screen.getByRole('slider', { name: 'Crank' });
    expect(slider.getAttribute('aria-valuenow')).toBe('0');
    expect(slider.getAttribute('aria-valuetext')).toMatch(/0°.*1I/);
    unmount();
    wheel(0);
    expect(screen.queryByRole('slider')).toBeNull();
    expect(screen.getByRole('img', { name: 'Crank' })).toBeTruthy();
  });
});
