// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Setting } from '@zero-lash/contract/setting';
import { lashPoints } from '@zero-lash/core/sheets';
import { measuredPoints } from '@zero-lash/core/measuring';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { outboxRead } from '../app/outbox.ts';
import { store, useAppSelector } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { withPending } from '../builds/pending.ts';
import { OpenUp } from '../buildPage/OpenUp.tsx';
import { StageWork } from '../buildPage/StageWork.tsx';
import { StrikeOutRound } from '../measuring/StrikeOut.tsx';
import { HeadAgain } from '../setting/HeadAgain.tsx';
import { LeaveUndecided } from '../setting/LeaveUndecided.tsx';
import { NotMeasured } from '../setting/NotMeasured.tsx';
import { LetStand } from '../signoff/LetStand.tsx';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();
beforeEach(async () => {
  await signIn('lead');
});

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const say = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const bodies = () => put().map(({ body }) => body);
const check = (change: Partial<BuildView> = {}) =>
  build(
    { job: 'valve-check', stage: 'set', rounds: [round(), round({ id: 's', kind: 'as-set' })], ...change },
    SCREW,
  );
const pointOf = (view: BuildView, key: string) =>
  measuredPoints(view.sheet).find((point) => point.key === key)!;
const left = (point: string, cause: Setting['cause'], note: string): Setting => ({
  ...{ id: `s-${point}`, point, kind: 'left', degrees: null, installed: null, fitted: null, mark: '' },
  ...{ note, from: 'unsaid', to: 'unsaid', giver: null, cause, by: 'Osk Velland', at, superseded: false },
});

describe('a point that is not measured', () => {
  const shown = (view: BuildView, key = '5E') => {
    const onNext = vi.fn();
    show(<NotMeasured build={view} point={pointOf(view, key)} enabled onNext={onNext} />);
    return onNext;
  };

  it('cannot be reached for a reason that is asked, and the next one comes', () => {
    const onNext = shown(check());
    press('Cannot be reached…');
    press('Pass it over');
    expect(screen.getByText('Say what is in the way.')).toBeTruthy();
    expect(bodies()).toEqual([]);
    say('It cannot be reached because', 'behind the exhaust');
    press('Pass it over');
    expect(bodies()).toMatchObject([
      { point: '5E', kind: 'left', cause: 'unreached', note: 'behind the exhaust' },
    ]);
    expect(onNext).toHaveBeenCalledOnce();
  });

  it('came apart alone, with its cylinder or its head, but for what was measured before', () => {
    const found = round({ readings: [reading('5I', 0.24, 0.26, 'in-spec')] });
    shown(check({ rounds: [found] }));
    press('Came apart…');
    fireEvent.change(screen.getByLabelText('How much of it'), { target: { value: 'head' } });
    say('Not measured because', 'rockers in a box');
    press('It came apart');
    const points = bodies().map((body) => (body as { point: string }).point);
    expect(points).toHaveLength(lashPoints(check().sheet.pattern).length - 1);
    expect(points).not.toContain('5I');
    expect(bodies()[0]).toMatchObject({ kind: 'left', cause: 'apart', note: 'rockers in a box' });
  });

  it('stands with why and who, and is let stand by a lead at proving', () => {
    const view = check({ stage: 'prove', settings: [left('5E', 'unreached', 'behind the exhaust')] });
    shown(view);
    expect(screen.getByRole('status').textContent).toContain(
      'cannot be reached: behind the exhaust by Osk Velland',
    );
    expect(screen.queryByRole('button')).toBeNull();
    const point = pointOf(view, '5E') as never;
    show(
      <LetStand
        build={view}
        point={point}
        reading={undefined}
        stale={false}
        target={0.3}
        onNext={() => undefined}
      />,
    );
    expect(screen.getByText(/5E cannot be reached\. If you leave it as it is/)).toBeTruthy();
    press('Let 5E stand');
    expect(bodies()).toMatchObject([{ stage: 'prove', check: 'accepted 5E', done: true }]);
  });
});

describe('points that no blade decides', () => {
  it('are left as they are by one reason for all of them', () => {
    const readings = [
      reading('1I', 0.28, 0.3, 'undecided-high'),
      reading('2E', 0.3, 0.32, 'undecided-low'),
      reading('3I', 0.1, 0.12, 'tight'),
      reading('4I', 0.28, 0.3, 'undecided-high'),
    ];
    const view = check({ rounds: [round({ readings })], settings: [left('4I', 'chosen', 'watched')] });
    show(<LeaveUndecided build={view} />);
    press('Leave the 2 undecided as they are…');
    say('Left alone because', 'quiet, and even');
    press('Leave them all');
    expect(bodies()).toMatchObject([
      { point: '1I', kind: 'left', note: 'quiet, and even' },
      { point: '2E', kind: 'left', note: 'quiet, and even' },
    ]);
  });
});

describe('the head at a first check', () => {
  const first = (readings: Parameters<typeof round>[0]) => {
    const view = check({ job: 'first-check', rounds: [round(readings), round({ id: 's', kind: 'as-set' })] });
    return { ...view, sheet: { ...view.sheet, runIn: { heatCycles: 0, retorque: true } } } as BuildView;
  };

  it('is tightened again once every gap was felt, and not before', () => {
    const all = lashPoints(check().sheet.pattern).map(({ key }) => reading(key, 0.24, 0.26, 'in-spec'));
    show(<HeadAgain build={first({ readings: all.slice(1) })} />);
    expect(screen.getByRole('checkbox')).toHaveProperty('disabled', true);
    document.body.replaceChildren();
    show(<HeadAgain build={first({ readings: all })} />);
    fireEvent.click(screen.getByRole('checkbox'));
    expect(bodies()).toMatchObject([{ stage: 'set', check: 'head-A', done: true }]);
    document.body.replaceChildren();
    // of two heads the one is tightened as the other still is not: what was felt before it stays felt
    const two = first({ readings: all });
    const { cylinders } = two.sheet.pattern;
    const pattern = {
      ...two.sheet.pattern,
      cylinders: cylinders.map((each, index) => ({
        ...each,
        bank: index < 3 ? ('A' as const) : ('B' as const),
      })),
    };
    const ticks = [
      { stage: 'set' as const, check: 'head-A', done: true, by: 'Osk Velland', at: '2031-01-01T11:00:00Z' },
    ];
    show(<HeadAgain build={{ ...two, ticks, sheet: { ...two.sheet, pattern } }} />);
    expect(screen.getByRole('checkbox', { name: /bank B/ })).toHaveProperty('disabled', false);
    document.body.replaceChildren();
    show(<HeadAgain build={{ ...first({ readings: all }), job: 'valve-check' }} />);
    expect(screen.queryByRole('checkbox')).toBeNull();
  });
});

describe('a round that was of another engine', () => {
  it('is struck out at once, for a reason that stands with each of its readings', () => {
    const withdrawn = { ...reading('3I', 0, 0, 'undecided'), reading: { kind: 'tries', tries: [] } } as never;
    show(
      <StrikeOutRound
        buildId="b"
        readings={[
          reading('1I', 0.24, 0.26, 'in-spec'),
          reading('2E', 0.3, 0.32, 'undecided-low'),
          withdrawn,
        ]}
      />,
    );
    press('Strike the whole round out…');
    press('Strike out 2 readings');
    expect(bodies()).toEqual([]);
    say('Struck out because', 'it was frost fan 9');
    press('Strike out 2 readings');
    expect(bodies()).toMatchObject([
      { point: '1I', reading: { kind: 'tries', tries: [] }, reason: 'it was frost fan 9', over: 'g-1I' },
      { point: '2E', reason: 'it was frost fan 9', over: 'g-2E' },
    ]);
  });
});

describe('what the record answers', () => {
  const line = (out: number, back: number | null) => ({
    ...{
      key: 'cover bolt',
      group: 'cover',
      name: 'Cover bolt',
      place: '',
      expected: 8,
      way: 'unsaid',
      note: '',
    },
    ...{ out, in: back, dropped: false },
  });
  const counted = (...lines: object[]) =>
    build({
      stage: 'close',
      ledger: lines.map((each, index) => ({
        id: `l${index}`,
        by: 'Osk Velland',
        at,
        lines: [each],
      })) as never,
    });
  const box = (view: BuildView) => {
    document.body.replaceChildren();
    show(<StageWork build={view} stage="close" blind={false} onPoint={stay} onLook={stay} />);
    return screen.getByRole('checkbox', { name: /counted back/ }) as HTMLInputElement;
  };

  it('ticks itself, and says from what; nothing else does', () => {
    const itself = box(counted(line(8, 8)));
    expect([itself.checked, itself.disabled]).toEqual([true, true]);
    expect(screen.getByText('from the count: 8 out, 8 in')).toBeTruthy();
    for (const name of [/Cover on/, /First start/])
      expect(screen.getByRole('checkbox', { name })).toHaveProperty('checked', false);
    expect(box(counted(line(8, 7))).checked).toBe(false);
    expect(box(counted(line(8, null))).checked).toBe(false);
    // where nobody counted, a person says it
    const byHand = box(build({ stage: 'close' }));
    expect([byHand.checked, byHand.disabled]).toEqual([false, false]);
  });
});

describe('a stage of a check', () => {
  it('asks for nothing that lies under the cover, and folds the count away', () => {
    show(<OpenUp build={check({ stage: 'open-up' })} stage="open-up" />);
    const seals = within(screen.getByRole('region', { name: 'Gaskets and seals' }));
    expect(seals.getByText('Cover gasket')).toBeTruthy();
    expect(seals.queryByText('Stem seals')).toBeNull();
    expect(screen.queryByText(/order to slacken/)).toBeNull();
    expect(screen.getByText('Count parts out, where more than the cover came off')).toBeTruthy();
  });

  it('is gone on from by its last tick, and not by one before, once that is with the server', async () => {
    /** A build as its page has it: with what was just done here. */
    function AtWork() {
      const items = useAppSelector((state) => state.outbox.items);
      const view = withPending(check({ stage: 'take-in', rounds: [] }), items);
      return <StageWork build={view} stage="take-in" blind={false} onPoint={stay} onLook={stay} />;
    }
    show(<AtWork />);
    const goingOn = () => document.querySelector('[data-loading]') !== null;
    fireEvent.click(screen.getByRole('checkbox', { name: /Engine cold/ }));
    await waitFor(() => expect(put()).toHaveLength(1));
    expect(screen.getByRole('button', { name: 'Go on to Cover off' })).toHaveProperty('disabled', true);
    expect(goingOn()).toBe(false);
    fireEvent.click(screen.getByRole('checkbox', { name: /Cannot start/ }));
    // nobody tapped it: it waits for what is still to be sent
    await waitFor(() => expect(goingOn()).toBe(true));
    const sent: string[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      sent.push(new URL((input as Request).url).pathname);
      return Response.json({ code: 'stale', detail: 'Somebody was faster.' }, { status: 409 });
    });
    store.dispatch(outboxRead([]));
    await waitFor(() => expect(sent).toContain('/api/builds/b/stage'));
    await screen.findByText(/Somebody was faster/);
  });
});

const stay = () => undefined;
