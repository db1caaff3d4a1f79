// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { OutboxItem } from '../app/outboxItem.ts';
import { outboxRead } from '../app/outbox.ts';
import { store } from '../app/store.ts';
import { useOnceSent } from '../app/useOnceSent.ts';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { at, atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';
import { GoBack } from '../buildPage/GoBack.tsx';
import { Check } from '../builds/Check.tsx';
import { Slackened } from '../setting/Slackened.tsx';
import { LetStand } from '../signoff/LetStand.tsx';
import { WithReason } from '../app/WithReason.tsx';
import { stageOf, type StageKey } from '@zero-lash/core/builds';
import { limitedPoints } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';

atTheBench();

describe('the way back', () => {
  const ticks = (['prove', 'close'] as const).flatMap((stage) =>
    stageOf(stage).checks.map((check) => ({
      ...{ stage, check: check.key, done: true, by: 'Osk Velland', at },
    })),
  );
  const back = (view: BuildView, onGo: (to: StageKey) => void = () => undefined) =>
    show(<GoBack state={view} busy={false} onGo={onGo} />);

  it('goes one stage back by one tap, and says first what has to be ticked again', () => {
    const went: StageKey[] = [];
    back(build({ stage: 'close', ticks }), (to) => went.push(to));
    expect(screen.getByText(/To be ticked again: Parts, clips and washers counted back/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Back to Prove' }));
    expect(went).toEqual(['prove']);
  });

  it('goes over several stages at once, which costs more the further it goes', () => {
    const went: StageKey[] = [];
    back(build({ stage: 'prove', ticks }), (to) => went.push(to));
    expect(screen.queryByText(/Two full turns/)).toBeNull();
    fireEvent.change(screen.getByLabelText('Something was missed at'), { target: { value: 'open-up' } });
    expect(screen.getByText(/To be ticked again: .*Two full turns/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Back to Open up' }));
    expect(went).toEqual(['open-up']);
  });

  it('ends where the build began', () => {
    show(<GoBack state={build({ job: 'set-again', stage: 'set' })} busy={false} onGo={() => undefined} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('a point left alone', () => {
  const alone = (verdict: ReadingRow['verdict']): BuildView =>
    build(
      {
        stage: 'prove',
        ticks: [{ stage: 'prove', check: 'two-turns', done: true, by: 'Osk Velland', at }],
        rounds: [round({ kind: 'proved', readings: [reading('1I', 0.28, 0.3, verdict)] })],
        settings: [
          {
            ...{ id: 's', point: '1I', kind: 'left', degrees: null, installed: null, fitted: null, mark: '' },
            ...{
              note: 'at the edge, watched',
              by: 'Osk Velland',
              at,
              superseded: false,
              from: 'unsaid',
              to: 'unsaid',
              giver: null,
              cause: 'chosen',
            },
          },
        ],
      },
      SCREW,
    );
  const panel = (view: BuildView) =>
    show(
      <LetStand
        build={view}
        point={limitedPoints(view.sheet).find(({ key }) => key === '1I')!}
        reading={undefined}
        stale={false}
        target={0.25}
        onNext={() => undefined}
      />,
    );

  it('is let stand by a lead, by one tap', async () => {
    await signIn('lead');
    panel(alone('undecided-high'));
    fireEvent.click(screen.getByRole('button', { name: 'Let 1I stand' }));
    expect(put()).toMatchObject([
      { kind: 'tick', path: 'builds/b/ticks', body: { stage: 'prove', check: 'accepted 1I', done: true } },
    ]);
  });

  it('is only said to wait for one to everybody else', () => {
    panel(alone('undecided-high'));
    expect(screen.getByText(/A lead may leave it as it is/)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('is not spoken of where it is tight: that is never let stand', async () => {
    await signIn('lead');
    expect(panel(alone('tight')).container.textContent).toBe('');
  });
});

describe('what is done only with a reason', () => {
  it('is not done without one, keeps what was written where it was refused, and is done with it', async () => {
    const given: string[] = [];
    let refuse = true;
    show(
      <WithReason
        draft="engine"
        ask="Put it away…"
        label="Retired because"
        action="Retire it"
        missing="Say why."
        onDo={(reason) => {
          given.push(reason);
          return !refuse;
        }}
      />,
    );
    fireEvent.click(screen.getByRole('button', { name: 'Put it away…' }));
    const send = () => fireEvent.submit(screen.getByLabelText('Retired because').closest('form')!);
    send();
    expect(screen.getByText('Say why.')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Retired because'), { target: { value: ' sold ' } });
    send();
    await waitFor(() => expect(given).toEqual(['sold']));
    expect(screen.getByLabelText('Retired because')).toHaveProperty('value', ' sold ');
    refuse = false;
    send();
    await waitFor(() => expect(screen.queryByLabelText('Retired because')).toBeNull());
    expect(given).toEqual(['sold', 'sold']);
  });
});

describe('a step that the server judges by what it has', () => {
  const tick: OutboxItem = {
    ...{ key: 'k', kind: 'tick', within: 'b', about: '“Cover on”', said: 'The tick of “Cover on”' },
    ...{ method: 'POST', path: 'builds/b/ticks', body: {}, buildId: 'b', refused: null },
  } as unknown as OutboxItem;
  function Step({ onDo }: { readonly onDo: () => void }) {
    const { once, waiting } = useOnceSent('b');
    return (
      <button type="button" onClick={() => void once(async () => onDo())}>
        {waiting ? 'waits' : 'Sign off'}
      </button>
    );
  }

  it('is taken only when what was tapped a moment ago is there', async () => {
    let done = 0;
    store.dispatch(outboxRead([tick]));
    show(<Step onDo={() => (done += 1)} />);
    fireEvent.click(screen.getByRole('button'));
    await waitFor(() => expect(screen.getByRole('button').textContent).toBe('waits'));
    expect(done).toBe(0);
    store.dispatch(outboxRead([]));
    await waitFor(() => expect(done).toBe(1));
    expect(screen.getByRole('button').textContent).toBe('Sign off');
  });
});

describe('what is ticked off at the bench', () => {
  it('is as it was tapped at once, though what it is tapped at follows later', () => {
    const ticked: boolean[] = [];
    const box = () => screen.getByRole<HTMLInputElement>('checkbox');
    function Followed() {
      const [by, setBy] = useState<string>();
      return (
        <>
          <Check text="Rocker shaft" by={by} aside="2 points" enabled onTick={(done) => ticked.push(done)} />
          <button type="button" onClick={() => setBy('Osk Velland')}>
            follows
          </button>
        </>
      );
    }
    show(<Followed />);
    fireEvent.click(box());
    expect([box().checked, ...ticked]).toEqual([true, true]);
    fireEvent.click(screen.getByRole('button'));
    expect(box().checked).toBe(true);
    fireEvent.click(box());
    expect([box().checked, ...ticked]).toEqual([false, true, false]);
  });
});

describe('what else was slackened', () => {
  it('waits for the crank to stand where cams come out, on an engine whose sheet says where', () => {
    const view = build({ stage: 'set' });
    const camsOut = { at: null, lockedBy: 'an 8 mm pin', first: 'tension off' };
    const pinned = {
      ...view,
      sheet: { ...view.sheet, pictures: [], pattern: { ...view.sheet.pattern, camsOut } },
    };
    show(<Slackened build={pinned} />);
    expect(screen.getByText('Crank locked by an 8 mm pin; first: tension off')).toBeTruthy();
    const cam = () => screen.getByRole<HTMLInputElement>('checkbox', { name: /Cam taken out/ });
    expect(cam().disabled).toBe(true);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /Head off/ }).disabled).toBe(false);
    fireEvent.click(screen.getByRole('checkbox', { name: /The crank where cams come out/ }));
    const [sent] = put();
    expect(sent?.body).toMatchObject({ stage: 'set', check: 'cams-out-position', done: true });
  });

  it('is ticked where every gap under it is proved again, and shows so at once', () => {
    show(<Slackened build={build({ stage: 'set' })} />);
    const [first] = screen.getAllByRole<HTMLInputElement>('checkbox');
    fireEvent.click(first!);
    expect(first!.checked).toBe(true);
    expect(put()).toMatchObject([{ kind: 'tick', body: { stage: 'set', done: true } }]);
  });
});
