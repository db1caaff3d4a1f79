// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { EngineRow } from '@zero-lash/contract/engines';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { itemGone, outboxRead } from '../app/outbox.ts';
import { store } from '../app/store.ts';
import { readUsageCsv, writeUsageCsv } from '../usage/usageCsv.ts';
import UsagePage from '../usage/UsagePage.tsx';
import { atTheBench, put, show, signIn } from './shownBench.tsx';

atTheBench();
afterEach(() => vi.restoreAllMocks());

const engine = (change: Partial<EngineRow>): EngineRow => ({
  ...{ id: 'e1', name: 'Frost fan 12', serial: 'Q4-2302', owner: 'Sellend', duty: '', place: 'Quarry Rows' },
  ...{ sheetId: 's', sheetName: 'Q4', usageUnit: 'hours', usage: 1420, running: 1420, usageOn: '2031-01-01' },
  ...{ heatCycles: 12, ownerId: null, stage: null, buildId: null, recheck: null, putAway: null, version: 1 },
  ...change,
});
const ENGINES = [
  engine({}),
  engine({ id: 'e2', name: 'Railcar 1', serial: '', usageUnit: 'km', usage: 48_210 }),
  engine({ id: 'e3', name: 'Rescue drive', serial: '', usageUnit: 'none', usage: 0 }),
];
const TODAY = '2031-01-11';
const PROBLEM = { type: 'about:blank', title: '', status: 409, code: 'usage_order' };
const read = (...lines: string[]) => readUsageCsv(lines.join('\n'), ENGINES, TODAY);

describe('a list of meters', () => {
  it('names its engines by name or serial, with days and heat cycles where they are given', () => {
    expect(
      read(
        'engine;reading;unit;date;heat cycles',
        'frost FAN 12;1430,5;hours;5.1.2031;14',
        'q4-2302;1440;;;',
      ),
    ).toMatchObject([
      {
        error: null,
        warning: null,
        body: { engineId: 'e1', usage: 1430.5, day: '2031-01-05', heatCycles: 14 },
      },
      { error: null, body: { engineId: 'e1', usage: 1440, day: null, heatCycles: null } },
    ]);
  });

  it('takes heat cycles of an engine without a meter, and no figure', () => {
    expect(read('engine,usage,cycles', 'Rescue drive,0,3', 'Rescue drive,12,')).toMatchObject([
      { error: null, body: { engineId: 'e3', usage: 0, heatCycles: 3 } },
      { error: 'Rescue drive has no meter: its running is not counted' },
    ]);
  });

  it('names every line that cannot be: strangers, another unit, no day, one to come, twice', () => {
    const lines = read(
      'engine,usage,unit,date,cycles',
      'Fan 99,1,,,',
      'Railcar 1,48300,hours,,',
      'Frost fan 12,many,,,',
      'Frost fan 12,1430,,2031-02-30,',
      'Frost fan 12,1430,,2031-02-01,',
      'Frost fan 12,1430,,,few',
      'Frost fan 12,1430,,,',
      'Q4-2302,1430,,2031-01-11,',
    );
    expect(lines.map(({ line, error }) => [line, error])).toEqual([
      [2, 'there is no engine “Fan 99”'],
      [3, 'Railcar 1 is counted in km, and not in hours'],
      [4, '“many” is no running figure'],
      [5, '“2031-02-30” is no day'],
      [6, '2031-02-01 has not come yet'],
      [7, '“few” is no count'],
      [8, null],
      [9, 'is in the file twice'],
    ]);
    expect(read('a,b')[0]!.error).toContain('has no usage');
    expect(read('usage', '3')[0]!.error).toContain('has no engine');
    // the heading says the unit of every line
    expect(read('engine,km', 'Frost fan 12,1430')[0]!.error).toContain('counted in hours');
    const two = [...ENGINES, engine({ id: 'e3', name: 'Q4-2302', serial: '' })];
    expect(readUsageCsv('engine,usage\nQ4-2302,1430', two, TODAY)[0]!.error).toContain(
      'more than one engine',
    );
  });

  it('asks about a figure that can hardly be', () => {
    expect(read('engine,usage', 'Frost fan 12,14210')[0]).toMatchObject({
      ...{ error: null, warning: '14210 is far from 1420: is 1421 meant?' },
    });
  });

  it('is written as it is read', () => {
    const back = readUsageCsv(writeUsageCsv(ENGINES), ENGINES, TODAY);
    expect(back.map(({ body }) => [body?.engineId, body?.usage])).toEqual([
      ['e1', 1420],
      ['e2', 48_210],
      ['e3', 0],
    ]);
  });
});

describe('the usage log', () => {
  /** The page, with a server that lists engines and takes no figure; `reached` says whether it is there. */
  async function shown(reached = () => true) {
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const { pathname, searchParams } = new URL((input as Request).url);
      if (!reached()) throw new TypeError('Failed to fetch');
      if (pathname.endsWith('/usage/questions')) return Response.json({ feed: false, questions: [] });
      const engines = ENGINES.filter(({ name }) => name.includes(searchParams.get('search') ?? ''));
      return Response.json({ engines, total: engines.length });
    });
    await signIn('bench');
    show(<UsagePage />);
    await screen.findByLabelText('Frost fan 12, now in hours');
  }
  const type = (label: string | RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const writeDown = () => screen.getByRole('button', { name: /^Write down/ });
  const rowOf = (name: string) => screen.getByRole('row', { name: new RegExp(name) });
  /** What the server would not have, as the sender writes it down. */
  const refuse = (about: string) =>
    act(() => {
      const items = store.getState().outbox.items.map((item) => ({
        ...item,
        refused: item.about === about ? { ...PROBLEM, detail: 'It does not fit.' } : item.refused,
      }));
      store.dispatch(outboxRead(items));
    });

  it('keeps what was typed on the device until it is sent, says what waits, and why one was refused', async () => {
    await shown();
    expect(writeDown()).toHaveProperty('disabled', true);
    type('Frost fan 12, now in hours', '1432,5');
    type('Frost fan 12, heat cycles in all', '13');
    type('Railcar 1, now in km', '48,300');
    expect(writeDown().textContent).toBe('Write down 2');
    fireEvent.click(writeDown());
    expect(put()).toEqual([
      {
        ...{ kind: 'meter-figure', path: 'engines/e1/usages' },
        body: { usage: 1432.5, day: null, heatCycles: 13, reason: '', sure: false, newMeter: null },
      },
      {
        ...{ kind: 'meter-figure', path: 'engines/e2/usages' },
        body: { usage: 48_300, day: null, heatCycles: null, reason: '', sure: false, newMeter: null },
      },
    ]);
    expect(rowOf('Frost fan 12').textContent).toContain('1432.5 hours waits to be sent');
    expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('value', '');
    refuse('Railcar 1');
    expect(rowOf('Railcar 1').textContent).toContain(
      '48300 km of Railcar 1 was not written: It does not fit.',
    );
    const [sent] = store.getState().outbox.items;
    act(() => void store.dispatch(itemGone(sent!.key)));
    expect(rowOf('Frost fan 12').textContent).toContain('written down');
    fireEvent.click(within(rowOf('Railcar 1')).getByRole('button', { name: 'Throw it away' }));
    await waitFor(() =>
      expect(store.getState().outbox.items.map(({ about }) => about)).not.toContain('Railcar 1'),
    );
  });

  it('finds what was typed again after it was left', async () => {
    await shown();
    type('Frost fan 12, now in hours', '1433');
    cleanup();
    await shown();
    expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('value', '1433');
    cleanup();
    // whoever comes after does not write down what another read
    await signIn('bench', 'osk');
    show(<UsagePage />);
    expect(await screen.findByLabelText('Frost fan 12, now in hours')).toHaveProperty('value', '');
    cleanup();
    await shown();
    fireEvent.click(writeDown());
    cleanup();
    await shown();
    expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('value', '');
  });

  it('is looked through on the device where the server is not reached', async () => {
    let there = true;
    await shown(() => there);
    there = false;
    type('Find', 'rail');
    await waitFor(() => expect(screen.queryByLabelText('Frost fan 12, now in hours')).toBeNull(), {
      timeout: 8000,
    });
    expect(screen.getByLabelText('Railcar 1, now in km')).toBeTruthy();
  }, 10_000);

  it('makes the rows in sight and no others, however many engines there are, and keeps the one that is typed into', async () => {
    const asked: string[] = [];
    const many = Array.from({ length: 450 }, (_, index) => ({
      ...{ ...ENGINES[0]!, id: `m${index}`, name: `Fan ${index}` },
    }));
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const { pathname, searchParams } = new URL((input as Request).url);
      if (pathname.endsWith('/usage/questions')) return Response.json({ feed: false, questions: [] });
      const from = Number(searchParams.get('offset'));
      asked.push(`${from} ${searchParams.get('limit')}`);
      return Response.json({ engines: many.slice(from, from + 200), total: many.length });
    });
    await signIn('bench');
    show(<UsagePage />);
    // there is no layout here: a row is as high as it is guessed to be
    vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(61);
    await screen.findByLabelText('Fan 0, now in hours');
    const made = screen.getAllByRole('row').length;
    expect(made).toBeGreaterThan(10);
    expect(made).toBeLessThan(40);
    expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('201');
    expect(asked).toEqual(['0 200']);
    type('Fan 1, now in hours', '1432.5');
    expect(writeDown().textContent).toBe('Write down 1');
    fireEvent.keyDown(screen.getByLabelText('Fan 1, now in hours'), { key: 'Enter' });
    expect(document.activeElement).toBe(screen.getByLabelText('Fan 2, now in hours'));
    // on paper stands all that is here
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    expect(screen.getAllByRole('row').length).toBe(201);
    act(() => void window.dispatchEvent(new Event('afterprint')));
    expect(screen.getAllByRole('row').length).toBeLessThan(40);
    // its end came into sight: more were asked for
    await waitFor(() => expect(asked).toContain('200 200'));
  });

  it('writes down what was typed of an engine that is not looked for any more', async () => {
    await shown();
    type('Find', 'Frost');
    type('Frost fan 12, now in hours', '1432.5');
    type('Find', 'Rail');
    await waitFor(() => expect(screen.queryByLabelText('Frost fan 12, now in hours')).toBeNull());
    type('Railcar 1, now in km', '48,300');
    fireEvent.click(screen.getByRole('button', { name: 'Write down 2' }));
    expect(put().map(({ path }) => path)).toEqual(['engines/e1/usages', 'engines/e2/usages']);
  });

  it('asks about a lower figure: a new meter, or why it is right', async () => {
    await shown();
    type('Frost fan 12, now in hours', '12');
    expect(screen.getByText(/is it a new meter, or was there a slip/)).toBeTruthy();
    expect(writeDown()).toHaveProperty('disabled', true);
    fireEvent.click(screen.getByLabelText(/A new meter was fitted/));
    expect(screen.getByText('The old meter stopped at 1420 or above.')).toBeTruthy();
    type(/^The old one stopped at/, '1400');
    expect(screen.getByText('The old meter stopped at 1420 or above.')).toBeTruthy();
    type(/^The old one stopped at/, '1425');
    fireEvent.click(writeDown());
    expect(put()[0]!.body).toMatchObject({ usage: 12, newMeter: { lastOfOld: 1425, startedAt: 0 } });
  });

  it('offers what was meant where a decimal point was left out', async () => {
    await shown();
    type('Frost fan 12, now in hours', '999999');
    const asked = within(rowOf('Frost fan 12')).getByRole('alert');
    expect(asked.textContent).toContain('More than can have been run since 1,420 was logged');
    // it holds back only itself, until somebody says that it is right
    expect(writeDown()).toHaveProperty('disabled', true);
    type('Railcar 1, now in km', '48300');
    expect(writeDown().textContent).toContain('1');
    fireEvent.click(within(asked).getByRole('button', { name: 'It is right' }));
    expect(writeDown().textContent).toContain('2');
    type('Frost fan 12, now in hours', '888888');
    expect(writeDown().textContent).toContain('1');
  });

  it('is only read by a viewer', async () => {
    await shown();
    await signIn('viewer');
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Write down/ })).toBeNull());
    expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('disabled', true);
  });
});
