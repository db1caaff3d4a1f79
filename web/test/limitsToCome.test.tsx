// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { measuredPoints } from '@zero-lash/core/measuring';
import { describe, expect, it, vi } from 'vitest';
import { LimitsToCome } from '../buildPage/LimitsToCome.tsx';
import { PointPanel } from '../buildPage/PointPanel.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { readForm, valuesFrom } from '../sheets/sheetCodec.ts';
import { Unknowns } from '../sheets/Unknowns.tsx';
import type { TurningWork } from '../turning/useTurning.ts';
import '../start/rooms.ts';
import { gorge } from './gorgeSheet.ts';
import { at, atTheBench, build, reading, round, SCREW, show } from './shownBench.tsx';

atTheBench();

/** A build that was opened before its book was here. */
function unread(change: Partial<BuildView> = {}): BuildView {
  const view = build({ stage: 'as-found', ...change }, SCREW);
  return { ...view, sheet: { ...view.sheet, id: 'r1', number: 1, limits: [], limitsToCome: true } };
}

/** What was sent, with a server on which a revision with limits is published, or is not. */
function server(published: boolean) {
  const sent: unknown[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    if (request.method === 'GET')
      return Response.json([
        { id: 'r2', number: 2, status: published ? 'published' : 'draft', source: { manual: 'The book' } },
        { id: 'r1', number: 1, status: 'published', source: { manual: 'none' } },
      ]);
    sent.push([new URL(request.url).pathname, await request.json()]);
    return Response.json({ code: 'stale', detail: 'Changed since.' }, { status: 409 });
  });
  return sent;
}

describe('a build whose limits are to come', () => {
  it('says so, and goes over to the revision that has them', async () => {
    const sent = server(true);
    show(<LimitsToCome build={unread()} />);
    expect(screen.getByRole('status').textContent).toContain('nothing is judged, set or signed');
    fireEvent.click(await screen.findByRole('button', { name: 'Go over to revision 2' }));
    await waitFor(() => expect(sent).toEqual([['/api/builds/b/revision', { version: 3, revisionId: 'r2' }]]));
    // a refusal stands where it arose
    expect(await screen.findByText(/Changed since/)).toBeTruthy();
  });

  it('names who fills them in where no revision has them yet; one with limits says nothing', async () => {
    const sent = server(false);
    show(<LimitsToCome build={unread()} />);
    expect(await screen.findByRole('link', { name: 'new revision' })).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
    expect(sent).toEqual([]);
    document.body.replaceChildren();
    show(<LimitsToCome build={build({}, SCREW)} />);
    expect(screen.queryByRole('status')).toBeNull();
  });

  it('shows a gap without a band, undecided, and takes it with no blade of a band', () => {
    const found = { ...reading('1I', 0.2, 0.22, 'undecided'), limits: null };
    const open = { ...round({ readings: [found], closedAt: at }), waiting: new Set<string>() };
    const view = unread({ rounds: [open] });
    const nobody = () => undefined;
    show(
      <PointPanel
        {...{ build: view, round: open, stage: 'as-found', change: null, blind: false, visit: open.id }}
        point={measuredPoints(view.sheet).find(({ key }) => key === '1I')!}
        turning={{} as TurningWork}
        {...{
          onNext: nobody,
          onSelect: nobody,
          onWalk: nobody,
          beside: [],
          feltHere: () => [],
          staysFor: () => false,
        }}
      />,
    );
    expect(screen.getByRole('img', { name: 'undecided: 0.20 to 0.22, limits to come' })).toBeTruthy();
    expect(screen.getByRole('region', { name: 'Point 1I' }).textContent).toContain('limits to come');
  });
});

describe('a sheet’s form', () => {
  const typed = { ...valuesFrom(gorge), limits: {} };
  it('asks for limits, or for a word that their book is not here', () => {
    expect(readForm(typed).errors['limits.intake']).toMatch(/Where its book is not here yet, tick that/);
    const { body, errors } = readForm({ ...typed, limitsToCome: true });
    expect(errors).toEqual({});
    expect(body).toMatchObject({ limits: [], limitsToCome: true });
    show(<Unknowns sheet={body!} title="Not known" />);
    expect(screen.getByRole('region', { name: 'Not known' }).textContent).toContain(
      'Limits: gaps are read and written down',
    );
    // with all of them typed the word means nothing any more
    expect(readForm({ ...valuesFrom(gorge), limitsToCome: true }).body).toMatchObject({
      limitsToCome: false,
    });
  });
});
