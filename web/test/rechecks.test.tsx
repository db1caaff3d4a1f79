// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { EngineTrend, RecheckList, RecheckRow } from '@zero-lash/contract/rechecks';
import type { FleetSays } from '@zero-lash/contract/fleet';
import type { Morning } from '@zero-lash/contract/morning';
import { afterEach, describe, expect, it, vi } from 'vitest';
import FleetPage from '../fleet/FleetPage.tsx';
import { EngineTrends } from '../rechecks/EngineTrends.tsx';
import RechecksPage from '../rechecks/RechecksPage.tsx';
import { SeasonCalendar } from '../rechecks/SeasonCalendar.tsx';
import { WhatIsForecast } from '../rechecks/WhatIsForecast.tsx';
import { dueInWords, expectedInWords } from '../rechecks/due.ts';
import MorningPart from '../today/MorningPart.tsx';
import { atTheBench, build, plannedRecheck, show, signIn } from './shownBench.tsx';

atTheBench();
afterEach(() => vi.restoreAllMocks());

/** Answers by path; gives the bodies of what was written. */
function server(answers: Readonly<Record<string, unknown>>) {
  const sent: [string, unknown][] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    const path = new URL(request.url).pathname.replace('/api/', '');
    if (request.method !== 'GET') sent.push([path, await request.json()]);
    const found = Object.entries(answers).find(([key]) => path === key);
    return Response.json(found ? found[1] : {}, { status: found ? 200 : 201 });
  });
  return sent;
}

const row = (change: Partial<RecheckRow> = {}): RecheckRow => ({
  ...{ id: 'r1', sequence: 3, dueUsage: 150, dueDate: '2031-03-01', dueCycles: null, state: 'due' },
  ...{ buildId: 'b', engineId: 'e', engine: 'Frost fan 12', owner: 'Sellend', place: 'Quarry Rows' },
  ...{ sheetName: 'Q4 Orchard', usageUnit: 'hours', usage: 120, running: 120, heatCycles: 0, season: '' },
  ...{
    byForecast: true,
    onHold: false,
    benchDay: null,
    expectedDay: '2031-02-20',
    earliestDay: '2031-02-10',
  },
  ...{ seasonFrom: null, seasonUntil: null, points: null, late: false },
  ...{ latestDay: '2031-03-01', unlike: [{ point: '3E', way: 'tighter' as const }], version: 4 },
  ...change,
});
const list = (...rechecks: RecheckRow[]): RecheckList => ({
  ...{ day: '2031-02-14', total: rechecks.length, rechecks },
  counts: { 'not-held': 0, overdue: 0, due: rechecks.length, coming: 0, waiting: 0 },
});
const FILTERS = { owners: [{ id: 'o1', name: 'Sellend' }], places: ['Quarry Rows'], sheets: [] };

describe('when a recheck is due', () => {
  const meter = { usage: 20, running: 1120, usageUnit: 'hours' };
  it.each([
    [
      { dueDate: '2031-03-01', dueUsage: 1150, dueCycles: null, season: '' },
      'by 1 Mar 2031 or at 50 hours, whichever is first',
    ],
    [
      { dueDate: '2031-03-01', dueUsage: null, dueCycles: 12, season: 'the first frost' },
      'by 1 Mar 2031, before the first frost or at 12 heat cycles, whichever is first',
    ],
  ])('is said by the meter it has now: %o', (due, words) => {
    expect(dueInWords(due, meter)).toBe(words);
  });

  it('has its spread where the log gives one', () => {
    const days = (earliestDay: string | null, latestDay: string | null) =>
      expectedInWords({ expectedDay: '2031-02-20', earliestDay, latestDay });
    expect(days('2031-02-10', '2031-03-01')).toBe('expected 20 Feb 2031 (10 Feb 2031 to 1 Mar 2031)');
    expect(days('2031-02-20', '2031-02-20')).toBe('expected 20 Feb 2031');
    expect(expectedInWords({ expectedDay: null, earliestDay: null, latestDay: null })).toContain(
      'log its running',
    );
  });
});

describe('the rechecks page', () => {
  it('says whose, when, what moves oddly and that the forecast brought it forward', async () => {
    await signIn('bench');
    server({ rechecks: list(row()), 'rechecks/filters': FILTERS });
    show(<RechecksPage />);
    const one = await screen.findByRole('article', { name: 'Frost fan 12' });
    expect(one.textContent).toContain('Sellend · Quarry Rows · Q4 Orchard · recheck 3');
    expect(one.textContent).toContain('3E moves tighter than its neighbours: look for the seat');
    expect(one.textContent).toContain('in 6 days · sooner by its forecast');
    // moving one is a lead's
    expect(within(one).queryByRole('button', { name: /Reschedule/ })).toBeNull();
  });

  it('has a day planned by typing it, no later than it is due', async () => {
    await signIn('bench');
    const sent = server({ rechecks: list(row()), 'rechecks/filters': FILTERS });
    show(<RechecksPage />);
    fireEvent.click(await screen.findByRole('button', { name: 'Plan a day for Frost fan 12' }));
    const field = screen.getByLabelText('On the bench, Frost fan 12');
    expect([field.getAttribute('min'), field.getAttribute('max')]).toEqual(['2031-02-14', '2031-03-01']);
    expect(field).toHaveProperty('value', '2031-02-20');
    fireEvent.change(field, { target: { value: '2031-02-18' } });
    fireEvent.click(screen.getByRole('button', { name: 'Plan it' }));
    await waitFor(() => expect(sent).toEqual([['rechecks/r1/bench-day', { day: '2031-02-18', version: 4 }]]));
  });

  it('is moved, held or dropped by a lead, with a reason', async () => {
    await signIn('lead');
    const sent = server({ rechecks: list(row()), 'rechecks/filters': FILTERS });
    show(<RechecksPage />);
    fireEvent.click(await screen.findByRole('button', { name: 'Reschedule Frost fan 12' }));
    const go = () => screen.getByRole('button', { name: 'Hold it back' });
    fireEvent.change(screen.getByLabelText('What of Frost fan 12'), { target: { value: 'on-hold' } });
    expect(go()).toHaveProperty('disabled', true);
    expect(screen.queryByLabelText('To the day')).toBeNull();
    fireEvent.change(screen.getByLabelText('Because'), { target: { value: 'It is harvest' } });
    fireEvent.click(go());
    await waitFor(() =>
      expect(sent).toEqual([
        ['rechecks/r1/move', { kind: 'on-hold', day: null, why: 'It is harvest', version: 4 }],
      ]),
    );
    cleanup();
    server({
      rechecks: list(row({ onHold: true, state: 'waiting', version: 5 })),
      'rechecks/filters': FILTERS,
    });
    show(<RechecksPage />);
    await waitFor(() => expect(screen.getByRole('article').textContent).toContain('on hold'));
    fireEvent.click(await screen.findByRole('button', { name: 'Reschedule Frost fan 12' }));
    const choices = within(screen.getByLabelText('What of Frost fan 12')).getAllByRole('option');
    expect(choices.map(({ textContent }) => textContent)).toEqual([
      ...['Move it to a day', 'Let it go again', 'Drop it for the next'],
    ]);
  });

  it('has every engine of one place planned on one day, and says which could not be', async () => {
    await signIn('bench');
    const two = list(row(), row({ id: 'r2', engine: 'Frost fan 14' }), row({ id: 'r3', onHold: true }));
    const sent: string[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation((input) => {
      const request = input as Request;
      const path = new URL(request.url).pathname.replace('/api/', '');
      if (request.method !== 'GET') sent.push(path);
      if (path === 'rechecks/r2/bench-day')
        return Promise.resolve(
          Response.json({ code: 'recheck_move', detail: 'It is due before.' }, { status: 409 }),
        );
      return Promise.resolve(
        Response.json(path === 'rechecks' ? two : path.endsWith('filters') ? FILTERS : {}),
      );
    });
    show(<RechecksPage />);
    fireEvent.change(await screen.findByLabelText('Place'), { target: { value: '' } });
    expect(screen.queryByRole('button', { name: 'Plan them together' })).toBeNull();
    await screen.findByRole('option', { name: 'Quarry Rows' });
    fireEvent.change(screen.getByLabelText('Place'), { target: { value: 'Quarry Rows' } });
    fireEvent.change(await screen.findByLabelText('All 2 at Quarry Rows on one day'), {
      target: { value: '2031-02-18' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Plan them together' }));
    await screen.findByText('1 of 2 are planned on 18 Feb 2031.');
    expect(screen.getByText('Frost fan 14: It is due before.')).toBeTruthy();
    expect(sent).toEqual(['rechecks/r1/bench-day', 'rechecks/r2/bench-day']);
  });

  it('stands over the days: what is overdue on today, a season on its first day', async () => {
    await signIn('bench');
    server({
      rechecks: list(
        row({
          id: 'late',
          engine: 'Trimmer',
          state: 'overdue',
          expectedDay: '2031-01-02',
          dueDate: '2031-01-02',
        }),
        row({ season: 'the first frost', seasonFrom: '2031-03-01', seasonUntil: '2031-03-12' }),
        row({ id: 'r3', engine: 'Rescue drive', season: 'the rope', seasonFrom: '2031-03-20' }),
      ),
    });
    const { container } = show(<SeasonCalendar narrow={{}} today="2031-02-14" />);
    await screen.findByRole('button', { name: 'Trimmer' });
    const on = (day: string) => container.querySelector(`[data-day="${day}"]`)!;
    expect(on('2031-02-14').textContent).toContain('Trimmer');
    expect(on('2031-02-20').textContent).toContain('Frost fan 12');
    expect(on('2031-03-01').textContent).toContain('the first frost, to 12 Mar 2031');
    const inSeason = ['2031-02-28', '2031-03-01', '2031-03-12', '2031-03-13', '2031-03-20', '2031-03-21'];
    expect(inSeason.map((day) => on(day).hasAttribute('data-season'))).toEqual([
      ...[false, true, true, false, true, false],
    ]);
    expect(screen.getByText(/When the rope ends nobody has said/)).toBeTruthy();
    // the weeks that are gone are not shown of this month
    expect(container.querySelector('[data-day="2031-02-01"]')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Frost fan 12' }));
    expect(screen.getByLabelText('On the bench, Frost fan 12')).toBeTruthy();
  });
});

describe('what is forecast of a recheck', () => {
  const point = { perUnit: -0.0001, sd: 0.01, pTight: 0, pLoose: 0, outAt: null, unlike: null, mean: 0.3 };
  it('names the likeliest points, the odd ones, what the plan had, and what a lead did', () => {
    const recheck = {
      ...plannedRecheck,
      ...{ byForecast: true, planUsage: 350 },
      forecast: {
        ...{ threshold: 0.2, priors: [] },
        points: [
          { ...point, point: '1E', pTight: 0.31 },
          { ...point, point: '2E', pTight: 0.02 },
          { ...point, point: '3E', pLoose: 0.12, unlike: 'looser' as const },
        ],
      },
      changes: [
        {
          kind: 'on-hold' as const,
          day: null,
          why: 'It is harvest',
          by: 'Osk Velland',
          at: '2031-01-01T10:00:00Z',
        },
      ],
    };
    const { container } = show(<WhatIsForecast recheck={recheck} engine={build().engine} />);
    expect(container.textContent).toMatch(/Sooner by its forecast: the plan alone would check at \d+/);
    expect(container.textContent).toContain('1E may be tight by then, 31 %');
    expect(container.textContent).not.toContain('2E');
    expect(container.textContent).toContain('3E moves looser than its neighbours: look for the lobe');
    expect(container.textContent).toContain('on hold, by Osk Velland, 1 Jan 2031: It is harvest');
  });
});

describe('the lash trend of an engine', () => {
  const { pattern } = build().sheet;
  const trend: EngineTrend = {
    ...{ buildId: 'b', number: 1, pattern, usageUnit: 'hours', setAt: 100, now: 320 },
    next: { recheckId: 'r', dueUsage: 350, planUsage: 600, dueDate: null, byForecast: true },
    priors: [
      { role: 'exhaust', from: 'stated', count: 2, perUnit: -0.00001, sd: 0.00005, betweenSd: 0.00002 },
    ],
    points: [],
  };
  const point = (
    key: string,
    role: string,
    unlike: 'tighter' | null = null,
  ): EngineTrend['points'][number] => ({
    ...{ point: key, role, limits: { min: 0.2, max: 0.3 }, unlike },
    observations: [
      { usage: 0, lo: 0.25, hi: 0.26 },
      { usage: 200, lo: 0.21, hi: 0.22 },
    ],
  });

  it('draws every point by its place, the odd one first, with what it rests on and a table of its looks', async () => {
    const { places } = await import('@zero-lash/core/sheets').then(({ layOutHeads }) => layOutHeads(pattern));
    const points = places.map(({ point: { key, role } }) =>
      point(key, role, key === '3E' ? 'tighter' : null),
    );
    server({ 'engines/e/trend': { ...trend, points } });
    show(<EngineTrends engineId="e" />);
    const all = await screen.findAllByRole('radio');
    expect(all).toHaveLength(points.length);
    expect(screen.getByText('3E moves tighter than its neighbours.')).toBeTruthy();
    const odd = screen.getByRole('radio', { checked: true });
    expect(odd.getAttribute('data-point')).toBe('3E');
    expect(screen.getByRole('table', { name: /^3E, limits/ }).textContent).toContain('300');
    expect(
      screen.getByText(/a default, which moves no date; this shop has measured only 2 such points/),
    ).toBeTruthy();
    // it is walked by arrow keys, as a head is
    fireEvent.keyDown(odd, { key: 'ArrowRight' });
    expect(screen.getByRole('radio', { checked: true }).getAttribute('data-point')).not.toBe('3E');
  });

  it('is not there before anything was measured', async () => {
    server({ 'engines/e/trend': { ...trend, points: [{ ...point('1I', 'intake'), observations: [] }] } });
    const { container } = show(<EngineTrends engineId="e" />);
    await waitFor(() => expect(globalThis.fetch).toHaveBeenCalled());
    expect(container.textContent).toBe('');
  });
});

describe('what all engines say', () => {
  const says: FleetSays = {
    ...{
      sheetId: 's',
      name: 'Quillmere Q4',
      usageUnit: 'hours',
      engines: 5,
      rechecks: 12,
      pattern: build().sheet.pattern,
    },
    byEngine: [
      {
        ...{ engineId: 'e7', engine: 'Frost fan 7', place: 'Chapel Slope', rechecks: 3, out: 2 },
        fastest: { point: '3E', perUnit: -0.00009 },
      },
    ],
    findings: [
      { said: 0.24, found: 0.23, inside: true },
      { said: 0.24, found: 0.2, inside: false },
    ],
    roles: [{ role: 'exhaust', engines: 5, points: 20, perUnit: -0.000044, betweenSd: 0.000013 }],
    positions: [
      {
        point: '3E',
        role: 'exhaust',
        engines: 5,
        perUnit: -0.00006,
        checks: 12,
        out: 2,
        goesFirst: 4,
        on: [{ engineId: 'e7', engine: 'Frost fan 7', perUnit: -0.00009, out: 2 }],
      },
    ],
    checks: [{ sequence: 1, engines: 5, rechecks: 5, out: 0, since: 11 }],
    calibration: { said: 0.8, count: 60, inside: 49, engines: 5 },
    interval: { says: 'shorter', engines: 5, rechecks: 12, out: 3 },
  };
  const shown = (change: Partial<FleetSays>) => {
    server({
      fleet: [{ sheetId: 's', name: 'Quillmere Q4', engines: 5, rechecks: 12, out: 3 }],
      'fleet/s': { ...says, ...change },
    });
    show(<FleetPage />);
  };

  it('is said with the engines behind it', async () => {
    shown({});
    expect(await screen.findByText(/the interval must be shorter/)).toBeTruthy();
    expect(screen.getByText(/49 of 60 forecasts came true \(82 %; 80 % expected\)/)).toBeTruthy();
    expect(screen.getByRole('radio', { name: /^3E/ }).getAttribute('aria-label')).toBe(
      '3E, exhaust, 6.0 µm tighter per 100 hours, found out at 2 of 12 checks',
    );
    // the place to look at first is open, with the engines it is worst on
    expect(screen.getByRole('status', { name: '3E on all engines' }).textContent).toContain(
      'Frost fan 79.0 µm tighter per 100 hours, found out 2 times',
    );
    expect(screen.getByRole('row', { name: /^Frost fan 7/ }).textContent).toContain(
      '2 of 33E, 9.0 µm tighter per 100 hours',
    );
    expect(
      screen.getByRole('button', { name: /Quillmere Q4.*3 of 12 rechecks found a point out/ }),
    ).toBeTruthy();
  });

  it('is not said from under three', async () => {
    shown({
      engines: 2,
      roles: [],
      positions: [],
      checks: [],
      calibration: null,
      byEngine: [],
      findings: [],
    });
    expect(await screen.findByText(/too few to say anything/)).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });
});

describe('the morning', () => {
  const morning: Morning = {
    waits: [{ for: 'parts', path: '/builds/b1', engine: 'Railcar 2', text: 'ordered: by post' }],
    ...{ questions: 2, unsent: 1, since: '2031-01-01T07:00:00Z' },
    changed: [
      {
        at: '2031-01-01T09:00:00Z',
        by: 'Osk Velland',
        engine: 'Edger',
        text: 'is signed off',
        path: '/builds/b2',
      },
    ],
  };

  it('says what waits for what, and what changed since this person looked', async () => {
    await signIn('bench');
    const sent = server({ morning, 'morning/looked': { ...morning, changed: [] } });
    show(<MorningPart />);
    const part = await screen.findByRole('region', { name: 'This morning' });
    expect(part.textContent).toContain('waits for parts: ordered: by post');
    expect(part.textContent).toContain('one letter could not be sent yet');
    expect(part.textContent).toContain('2 lines of the meter feed need an answer');
    expect(part.textContent).toContain('Osk Velland, 1 Jan 2031Edgeris signed off');
    fireEvent.click(screen.getByRole('button', { name: 'Mark as read' }));
    await waitFor(() => expect(sent.map(([path]) => path)).toEqual(['morning/looked']));
  });

  it('is not there where nothing waits and nothing changed', async () => {
    server({ morning: { waits: [], questions: 0, since: null, changed: [] } });
    const { container } = show(<MorningPart />);
    await waitFor(() => expect(globalThis.fetch).toHaveBeenCalled());
    expect(container.textContent).toBe('');
  });
});
