// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { EngineRow } from '@zero-lash/contract/engines';
import { describe, expect, it, vi } from 'vitest';
import { store } from '../app/store.ts';
import { readEnginesCsv, writeEnginesCsv } from '../engines/enginesCsv.ts';
import { EnginesIn } from '../engines/EnginesIn.tsx';
import { sheetsApi } from '../sheets/endpoints.ts';
import { atTheBench, show, signIn } from './shownBench.tsx';

atTheBench();

const SHEETS = [
  { id: 's1', maker: 'Quillmere', name: 'Q4 Orchard' },
  { id: 's2', maker: 'Tarnholt', name: 'T16 Rack' },
];
const read = (text: string, here: readonly string[] = []) =>
  readEnginesCsv(text, SHEETS, new Map(here.map((name) => [name.toLowerCase(), `id of ${name}`])));

describe('a list of engines', () => {
  it('is read with its columns in any order, by commas or semicolons, in words a shop uses', () => {
    expect(
      read('Owner;Engine;Spec sheet;Hours\nSellend Orchards;Frost fan 20;quillmere q4 orchard;1 204,5'),
    ).toEqual([
      {
        ...{ line: 2, error: null, known: null, lastCheck: null },
        engine: {
          ...{
            name: 'Frost fan 20',
            serial: '',
            owner: 'Sellend Orchards',
            duty: '',
            place: '',
            sheetId: 's1',
          },
          usage: 1204.5,
        },
      },
    ]);
    expect(read('name,sheet\nRailcar 9,T16 Rack')[0]!.engine).toMatchObject({ sheetId: 's2', usage: 0 });
  });

  it('names every line that is not understood', () => {
    const lines = read(
      [
        'name,sheet,usage',
        'Fan A,Q4 Orchard,12',
        ',Q4 Orchard,1',
        'Fan B,Q9,1',
        'fan a,Q4 Orchard,1',
        'Fan C,Q4 Orchard,many',
        'Fan D,Q4 Orchard,-1',
        'Fan E,Q4 Orchard,1',
      ].join('\n'),
      ['Fan E'],
    );
    expect(lines.map(({ line, error }) => [line, error])).toEqual([
      [2, null],
      [3, 'has no name'],
      [4, 'there is no spec sheet “Q9”'],
      [5, '“fan a” is in the file twice'],
      [6, '“many” is no running figure'],
      [7, '“-1” is no running figure'],
      [8, '“Fan E” is here already'],
    ]);
    expect(read('engine,owner\nFan,Me')[0]!.error).toContain('has no sheet');
    expect(read('')[0]!.error).toContain('nothing in the file');
    expect(read('name,sheet,hours,km\n')[0]!.error).toContain('usage twice');
  });

  it('is written as it is read', () => {
    const row = {
      ...{
        name: 'Fan, upper',
        serial: 'Q4-1',
        owner: 'O',
        duty: 'd',
        place: 'Mill Field',
        sheetName: 'Q4 Orchard',
        usage: 12.5,
      },
      usageUnit: 'hours',
    } as EngineRow;
    expect(read(writeEnginesCsv([row]))).toMatchObject([
      { engine: { name: 'Fan, upper', serial: 'Q4-1', place: 'Mill Field', sheetId: 's1', usage: 12.5 } },
    ]);
  });

  it('says when each was last checked, of those that are here already too, and what was read then', () => {
    const lines = read(
      [
        'name,sheet,usage,last checked,checked at,checked by,gaps',
        'Fan A,Q4 Orchard,500,12.03.2030,400,Old fitter,1I 0.20 0.22; 1E 0.30',
        'Fan B,,,2030-03-12,410,Old fitter,',
        'Fan C,Q4 Orchard,5,2030-13-12,4,Old fitter,',
        'Fan D,Q4 Orchard,5,,4,Old fitter,',
        'Fan E,Q4 Orchard,5,2030-03-12,4,,',
        'Fan F,Q4 Orchard,5,2030-03-12,4,Old fitter,1I wide',
      ].join('\n'),
      ['Fan B'],
    );
    expect(lines[0]).toMatchObject({
      engine: { name: 'Fan A', usage: 500 },
      lastCheck: {
        ...{ on: '2030-03-12', usage: 400, by: 'Old fitter' },
        gaps: [
          { point: '1I', reading: { kind: 'bracket', go: 0.2, noGo: 0.22 }, asTyped: '0.20 0.22' },
          { point: '1E', reading: { kind: 'drag', blade: 0.3 } },
        ],
      },
    });
    expect(lines[1]).toMatchObject({ engine: null, known: { id: 'id of Fan B' }, lastCheck: { usage: 410 } });
    expect(lines.slice(2).map(({ error }) => error)).toEqual([
      '“2030-13-12” is no day',
      '“Fan D” was checked, but the file does not say on which day',
      'the file does not say who checked “Fan E”',
      '“1I wide” is no point with its gap, such as 1I 0.20 0.22',
    ]);
  });

  it('is looked through before anything is taken in, and what fails is still there', async () => {
    await signIn('lead');
    await store.dispatch(sheetsApi.util.upsertQueryData('sheets', undefined, SHEETS as never));
    // one more than is asked for at a time, and one that is put away
    const named = (names: readonly string[]) => names.map((name) => ({ name }));
    const here = named([...Array.from({ length: 500 }, (_, index) => `Pump ${index}`), 'Fan C']);
    const away = named(['Fan D']);
    const answers = vi.spyOn(globalThis, 'fetch').mockImplementation((input) => {
      const { searchParams: asked } = new URL((input as Request).url);
      const all = asked.get('away') === 'true' ? away : here;
      const from = Number(asked.get('offset'));
      const engines = all.slice(from, from + Number(asked.get('limit')));
      return Promise.resolve(Response.json({ engines, total: all.length }));
    });
    show(<EnginesIn />);
    const lines = ['name,sheet', 'Fan A,Q4 Orchard', 'Fan B,Q9', 'Fan C,Q4 Orchard', 'Fan D,Q4 Orchard'];
    const file = new File([lines.join('\n')], 'engines.csv', { type: 'text/csv' });
    fireEvent.change(screen.getByLabelText('CSV of engines'), { target: { files: [file] } });
    await screen.findByText(/1 of 4 lines understood: Fan A/);
    expect(screen.getByText('Line 3: there is no spec sheet “Q9”.')).toBeTruthy();
    expect(screen.getByText('Line 4: “Fan C” is here already.')).toBeTruthy();
    expect(screen.getByText('Line 5: “Fan D” is here already.')).toBeTruthy();
    answers.mockRestore();
    const sent = vi.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('away'));
    fireEvent.click(screen.getByRole('button', { name: 'Take the 1 in' }));
    await waitFor(() => expect(sent).toHaveBeenCalled());
    await waitFor(() => expect(screen.getByText('0 engines were imported.')).toBeTruthy(), { timeout: 8000 });
    expect(screen.getByRole('button', { name: 'Take the 1 in' })).toBeTruthy();
    sent.mockRestore();
  });
});
