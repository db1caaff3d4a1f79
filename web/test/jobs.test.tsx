// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { JOBS, jobOf, stageIn } from '@zero-lash/core/builds';
import { describe, expect, it, vi } from 'vitest';
import { LargerJob } from '../buildPage/LargerJob.tsx';
import { StageRail } from '../buildPage/StageRail.tsx';
import { OpenBuild } from '../engines/OpenBuild.tsx';
import { Rechecks } from '../rechecks/Rechecks.tsx';
import '../start/rooms.ts';
import { at, atTheBench, build, SCREW, show } from './shownBench.tsx';

atTheBench();

const ENGINE = {
  id: 'e',
  name: 'Frost fan 7',
  sheetId: 'sh',
  builds: [] as unknown[],
} as unknown as EngineView;

/** What was sent, with a server that has one revision of the sheet. */
function server() {
  const sent: unknown[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    if (request.method === 'GET')
      return Response.json([
        {
          id: 'r1',
          number: 1,
          status: 'published',
          maker: 'Vessany',
          name: 'S1',
          source: { manual: 'The book', page: '' },
        },
      ]);
    sent.push([new URL(request.url).pathname, await request.json()]);
    return Response.json({ code: 'build_open', detail: 'A build is open.' }, { status: 409 });
  });
  return sent;
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('a build that is opened', () => {
  it('is what it is by one tap: a check without a word, a rebuild with why', async () => {
    const sent = server();
    show(<OpenBuild engine={ENGINE} />);
    await screen.findByText(/On Vessany S1, revision 1: The book/);
    press('Rebuild');
    expect(screen.getByText('Rebuild: say in a line what the engine is here for.')).toBeTruthy();
    expect(sent).toEqual([]);
    press('Valve check');
    await waitFor(() =>
      expect(sent).toEqual([
        ['/api/engines/e/builds', { revisionId: 'r1', job: 'valve-check', complaint: '' }],
      ]),
    );
    // refused, what was typed stays
    fireEvent.change(screen.getByLabelText(/what is it here for/), { target: { value: ' burnt valve ' } });
    await screen.findByText(/A build is open/);
    press('Rebuild');
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toMatchObject(['/api/engines/e/builds', { job: 'rebuild', complaint: 'burnt valve' }]);
    expect(screen.queryByRole('button', { name: 'Set again' })).toBeNull();
  });

  it('is opened when its sheet has come, where its job was pressed before: no press is lost', async () => {
    const notAsked = (): void => undefined;
    let come: (value: Response) => void = notAsked;
    const sent: string[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const request = input as Request;
      // what the test before asks for again is answered beside it
      if (request.method === 'GET')
        return request.url.includes('/slow') ? new Promise((resolve) => (come = resolve)) : Response.json([]);
      sent.push(((await request.json()) as { revisionId: string }).revisionId);
      return Response.json({ code: 'build_open', detail: 'A build is open.' }, { status: 409 });
    });
    show(<OpenBuild engine={{ ...ENGINE, sheetId: 'slow' }} />);
    press('Valve check');
    await waitFor(() => expect(come).not.toBe(notAsked));
    expect(sent).toEqual([]);
    come(
      Response.json([{ id: 'r9', number: 1, status: 'published', source: { manual: 'The book', page: '' } }]),
    );
    await waitFor(() => expect(sent).toEqual(['r9']));
  });

  it('has a rail of the stages of its job, numbered as they come', () => {
    for (const { key, stages } of JOBS.filter(({ opened }) => opened !== 'last-checked')) {
      document.body.replaceChildren();
      show(<StageRail at={stages[1]!} job={key} looking={stages[1]!} onLook={() => undefined} />);
      const rail = within(screen.getByRole('navigation', { name: 'Stages of the build' }));
      expect(rail.getAllByRole('button').map((each) => each.textContent)).toEqual(
        stages.map((stage, index) => {
          const place = index === 0 ? 'done' : index === 1 ? 'here' : 'to come';
          return `${index === 0 ? '✓' : index + 1}${stageIn(key, stage).title}, ${place}`;
        }),
      );
    }
  });
});

describe('a job in which more was found', () => {
  it('is made a larger one after it is asked, and the largest never', async () => {
    const sent = server();
    show(<LargerJob id="b" version={4} job="valve-check" enabled />);
    press('More was found than a valve check takes…');
    expect(screen.getByText(jobOf('rebuild').about)).toBeTruthy();
    press('Make it a rebuild');
    await waitFor(() => expect(sent).toEqual([['/api/builds/b/job', { version: 4, job: 'rebuild' }]]));
    document.body.replaceChildren();
    show(<LargerJob id="b" version={4} job="rebuild" enabled />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('an engine whose recheck held', () => {
  const past = (outcome: 'held' | 'out') =>
    [
      { id: 'c', sequence: 2, status: 'done', outcome, doneAt: at, doneBy: 'Osk Velland', late: false },
    ] as never;
  const running = (outcome: 'held' | 'out') =>
    build({ stage: 'run-in', rechecks: past(outcome), rounds: [] }, SCREW);

  it('is set again for a reason that is asked first, and stands with the build', async () => {
    const sent = server();
    show(<Rechecks build={running('held')} />);
    press('Set it again all the same…');
    press('Set it again');
    expect(screen.getByText('Say why first.')).toBeTruthy();
    expect(sent).toEqual([]);
    fireEvent.change(screen.getByLabelText('Set again, because'), { target: { value: 'nut' } });
    press('Set it again');
    await waitFor(() =>
      expect(sent).toEqual([
        [
          '/api/engines/e/builds',
          expect.objectContaining({
            recheckId: 'c',
            complaint: 'Recheck 2 held: a lock nut was found slack',
          }),
        ],
      ]),
    );
  });

  it('is not asked that where it did not hold: what was found is the reason', () => {
    server();
    show(<Rechecks build={running('out')} />);
    expect(screen.queryByRole('button', { name: 'Set it again all the same…' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Set it again' })).toBeTruthy();
  });
});
