// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { EngineRow } from '@zero-lash/contract/engines';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { readUsageCsv, writeUsageCsv } from '../usage/usageCsv.ts';
import UsagePage from '../usage/UsagePage.tsx';
import { atTheBench, show, signIn } from './shownBench.tsx';

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
];
const TODAY = '2031-01-11';
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
        doubt: null,
        body: { engineId: 'e1', usage: 1430.5, day: '2031-01-05', heatCycles: 14 },
      },
      { error: null, body: { engineId: 'e1', usage: 1440, day: null, heatCycles: null } },
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
    expect(read('a,b')[0]!.error).toContain('engine and usage at least');
    // the heading says the unit of every line
    expect(read('engine,km', 'Frost fan 12,1430')[0]!.error).toContain('counted in hours');
    const two = [...ENGINES, engine({ id: 'e3', name: 'Q4-2302', serial: '' })];
    expect(readUsageCsv('engine,usage\nQ4-2302,1430', two, TODAY)[0]!.error).toContain(
      'more than one engine',
    );
  });

  it('asks about a figure that can hardly be', () => {
    expect(read('engine,usage', 'Frost fan 12,14210')[0]).toMatchObject({
      ...{ error: null, doubt: '14210 is far from 1420: is 1421 meant?' },
    });
  });

  it('is written as it is read', () => {
    const back = readUsageCsv(writeUsageCsv(ENGINES), ENGINES, TODAY);
    expect(back.map(({ body }) => [body?.engineId, body?.usage])).toEqual([
      ['e1', 1420],
      ['e2', 48_210],
    ]);
  });
});

describe('the usage log', () => {
  /** The page, with a server that answers what it is told; gives what was sent. */
  async function shown(answer: (body: { lines: { engineId: string }[] }) => object) {
    const sent: { lines: object[] }[] = [];
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const request = input as Request;
      const { pathname } = new URL(request.url);
      if (pathname.endsWith('/usage/round')) {
        const body = (await request.json()) as { lines: { engineId: string }[] };
        sent.push(body);
        return Response.json(answer(body));
      }
      if (pathname.endsWith('/usage/questions')) return Response.json({ feed: false, questions: [] });
      return Response.json({ engines: ENGINES, total: ENGINES.length });
    });
    await signIn('bench');
    show(<UsagePage />);
    await screen.findByLabelText('Frost fan 12, now in hours');
    return sent;
  }
  const type = (label: string | RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const writeDown = () => screen.getByRole('button', { name: /^Write down/ });

  it('sends what was typed, keeps what was refused, and says why', async () => {
    const sent = await shown(({ lines }) => ({
      lines: lines.map(({ engineId }) => ({
        engineId,
        ...(engineId === 'e1'
          ? { state: 'taken', code: null, detail: '' }
          : { state: 'refused', code: 'usage_order', detail: 'It does not fit.' }),
      })),
    }));
    expect(writeDown()).toHaveProperty('disabled', true);
    type('Frost fan 12, now in hours', '1432,5');
    type('Frost fan 12, heat cycles in all', '13');
    type('Railcar 1, now in km', '48,300');
    expect(writeDown().textContent).toBe('Write down 2');
    fireEvent.click(writeDown());
    await screen.findByText('It does not fit.');
    expect(sent[0]!.lines).toMatchObject([
      { engineId: 'e1', usage: 1432.5, heatCycles: 13, newMeter: null },
      { engineId: 'e2', usage: 48_300, heatCycles: null },
    ]);
    await waitFor(() =>
      expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('value', ''),
    );
    expect(screen.getByLabelText('Railcar 1, now in km')).toHaveProperty('value', '48,300');
  });

  it('asks about a lower figure: a new meter, or why it is right', async () => {
    const sent = await shown(() => ({ lines: [] }));
    type('Frost fan 12, now in hours', '12');
    expect(screen.getByText(/is it a new meter, or was there a slip/)).toBeTruthy();
    expect(writeDown()).toHaveProperty('disabled', true);
    fireEvent.click(screen.getByLabelText(/A new meter was fitted/));
    type('The old one stopped at', '1400');
    expect(screen.getByText('The old meter stopped at 1420 or above.')).toBeTruthy();
    type('The old one stopped at', '1425');
    fireEvent.click(writeDown());
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]!.lines[0]).toMatchObject({ usage: 12, newMeter: { lastOfOld: 1425, startedAt: 0 } });
  });

  it('offers what was meant where a decimal point was left out', async () => {
    await shown(() => ({ lines: [] }));
    type('Frost fan 12, now in hours', '999999');
    const row = screen.getByRole('row', { name: /Frost fan 12/ });
    expect(within(row).getByRole('alert').textContent).toContain('Far above 1,420');
  });

  it('is only read by a viewer', async () => {
    await shown(() => ({ lines: [] }));
    await signIn('viewer');
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Write down/ })).toBeNull());
    expect(screen.getByLabelText('Frost fan 12, now in hours')).toHaveProperty('disabled', true);
  });
});
