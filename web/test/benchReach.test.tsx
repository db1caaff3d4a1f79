// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { screen } from '@testing-library/react';
import type { Instrument, Tools } from '@zero-lash/contract/instruments';
import { describe, expect, it } from 'vitest';
import { store } from '../app/store.ts';
import { CanThisBench } from '../instruments/CanThisBench.tsx';
import { instrumentsApi } from '../instruments/endpoints.ts';
import { atTheBench, build, SCREW, show } from './shownBench.tsx';

atTheBench();

const instrument = (change: Partial<Instrument>): Instrument => ({
  ...{ id: 'set', name: 'Long blades', kind: 'blade-set', unit: 'mm', uncertainty: 0.01, angled: false },
  ...{ blades: [], missing: [], worn: [], measured: [], address: null, checkDue: null, active: true },
  ...{ version: 1, overdue: false, lastCheck: null, torque: null },
  ...change,
});
/** Takes the shop's instruments, the first set on the one bench. */
const shopHas = (...instruments: Instrument[]) =>
  store.dispatch(
    instrumentsApi.util.upsertQueryData('tools', undefined, {
      instruments,
      benches: [{ id: 'one', name: 'Bench 1', bladeSetId: 'set', maxStack: 1, version: 1 }],
    } satisfies Tools),
  );
const said = (view = build({ stage: 'take-in' }, SCREW)) =>
  show(<CanThisBench build={view} />).container.textContent!.replace(/\u00a0|\u202f/g, ' ');

describe('whether a bench can measure an engine', () => {
  it('names the blade at each limit of each role, as it is stamped', async () => {
    await shopHas(
      instrument({
        blades: [0.21, 0.29, 0.31, 0.39, 0.4],
        measured: [{ blade: 0.4, is: 0.39 }],
        worn: [0.39],
      }),
    );
    const text = said();
    expect(text).toContain('Can Bench 1 do it?');
    expect(text).toContain('intake least 0.21 mm: by 0.21 · greatest 0.29 mm: by 0.29');
    expect(text).toContain('exhaust least 0.31 mm: by 0.31 · greatest 0.39 mm: by 0.40');
  });

  it('says which blade to have where none lies near enough, or none in the band at all', async () => {
    await shopHas(instrument({ blades: [0.25, 0.5] }));
    const text = said();
    expect(text).toContain('least 0.21 mm: nearest is 0.25, 0.04 mm off, so have a 0.21 mm blade');
    expect(text).toContain('least 0.31 mm: nothing here lies in the band, so have a 0.31 mm blade');
  });

  it('asks for a micrometer where pieces are fitted, and for what is overdue', async () => {
    await shopHas(instrument({ blades: [0.21, 0.29], overdue: true, checkDue: '2030-12-01' }));
    expect(said(build({ stage: 'take-in' }))).toMatch(
      /none is written down.*Long blades was due for its check/,
    );
    expect(said()).not.toContain('micrometer');
    await shopHas(
      instrument({ blades: [0.21, 0.29] }),
      instrument({ id: 'mike', name: 'Micrometer', kind: 'micrometer' }),
    );
    expect(said(build({ stage: 'take-in' }))).not.toContain('none is written down');
  });

  it('names the wrench for each torque, and those that none reaches, before anything is opened', async () => {
    const wrench = { kind: 'torque-wrench', uncertainty: 4 } as const;
    const view = build({ stage: 'take-in' }, SCREW);
    const torques = [
      { fastening: 'Cam caps', steps: '8 Nm, then 14 Nm', order: '', rows: [], sequence: [] },
      { fastening: 'Head', steps: '20 Nm, then 145 Nm, then 90°', order: '', rows: [], sequence: [] },
      { fastening: 'Cover', steps: 'hand tight', order: '', rows: [], sequence: [] },
      { fastening: 'Plugs', steps: 'tight', order: '', rows: [], sequence: [] },
    ];
    await shopHas(
      instrument({ blades: [0.21, 0.29] }),
      instrument({ ...wrench, id: 'small', name: 'Small one', torque: { from: 2, to: 25 }, overdue: true }),
      instrument({ ...wrench, id: 'away', name: 'Put away', torque: { from: 2, to: 300 }, active: false }),
    );
    const text = said({ ...view, sheet: { ...view.sheet, torques } as typeof view.sheet });
    expect(text).toContain('Cam caps 8 Nm, then 14 Nm: by Small one');
    expect(text).toContain('by Small one; no wrench here reaches 145 Nm');
    expect(text).toContain('Cover hand tight: no wrench');
    expect(text).toContain('Plugs tight: read it in the manual');
    expect(text).toContain('Small one was due for its check: check it against a tester first');
    expect(text).not.toContain('Put away');
  });

  it('sends to the instruments where the bench has no blades', async () => {
    await shopHas();
    said();
    expect(screen.getAllByRole('link', { name: 'Instruments' })[0]!.getAttribute('href')).toBe(
      '/instruments',
    );
  });
});
