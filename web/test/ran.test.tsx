// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { fireEvent, screen } from '@testing-library/react';
import type { RanOfBuild } from '@zero-lash/contract/ran';
import { passesLeft, passesOf } from '@zero-lash/core/assembly';
import { describe, expect, it } from 'vitest';
import { store } from '../app/store.ts';
import { PutTogether, Tighten } from '../assembly/Tighten.tsx';
import { enginesApi } from '../engines/endpoints.ts';
import { ExplainLedger } from '../parts/ExplainLedger.tsx';
import { HowItRan, ranInWords } from '../ran/HowItRan.tsx';
import { RanCompared } from '../engines/RanCompared.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { atTheBench, build, put, show, showUnfolded, signIn } from './shownBench.tsx';

atTheBench();

const SIGNED = {
  signOff: { by: 'Ilse Marrand', at: '2031-01-01T10:00:00Z', usage: 10, statement: '', accepted: [] },
};
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('how an engine ran', () => {
  it('is a figure or a word, asked for only where it runs', async () => {
    await signIn('bench');
    expect(show(<HowItRan build={build()} />).container.textContent).toBe('');
    show(<HowItRan build={build(SIGNED)} />);
    const write = () => fireEvent.click(screen.getByRole('button', { name: 'Write down' }));
    write();
    expect(screen.getByText('A figure, or a word beside.')).toBeTruthy();
    type('What', 'power');
    type('Figure', 'strong');
    write();
    expect(screen.getByText('A number such as 42.5.')).toBeTruthy();
    expect(put()).toEqual([]);
    type('Figure', '42,5');
    write();
    expect(put()).toMatchObject([
      { kind: 'ran', body: { lines: [{ kind: 'power', value: 42.5, unit: 'kW', text: '' }] } },
    ]);
    expect(ranInWords({ kind: 'power', value: 42.5, unit: 'kW', text: 'smooth' })).toBe(
      'Power 42.5 kW, smooth',
    );
    expect(ranInWords({ kind: 'word', value: null, unit: '', text: 'starts at once' })).toBe(
      'The owner’s word: starts at once',
    );
  });

  it('stands build by build, side by side', async () => {
    const ran: RanOfBuild[] = [2, 1].map((number) => ({
      ...{ buildId: `b${number}`, number, signedAt: '2031-01-01T10:00:00Z' },
      entries: [
        {
          ...{ by: 'Tobin Hask', at: '2031-01-02T10:00:00Z' },
          lines: [{ kind: 'power', value: 40 + number, unit: 'kW', text: '' }],
        },
      ],
    }));
    await store.dispatch(enginesApi.util.upsertQueryData('engineRan', 'e', ran));
    show(<RanCompared engineId="e" />);
    expect(screen.getAllByRole('columnheader').map((each) => each.textContent.slice(0, 7))).toEqual([
      'Build 2',
      'Build 1',
    ]);
    expect(screen.getByRole('row', { name: /^Power/ }).textContent).toBe('Power42 kW41 kW');
  });
});

const TORQUES = [
  { fastening: 'Head nuts', steps: '60 Nm, then 90°', order: '', rows: [2, 2], sequence: [] },
  { fastening: 'By feel', steps: 'tight', order: '', rows: [], sequence: [] },
];
const together = (ticks: BuildView['ticks'] = []) => {
  const view = build({ ticks });
  const assembly = [
    { text: '19 pins', hold: true },
    { text: 'Oiled', hold: false },
  ];
  return { ...view, sheet: { ...view.sheet, torques: TORQUES, assembly } } as BuildView;
};
const tick = (check: string) => ({
  ...{ stage: 'set' as const, check, done: true, by: 'Tobin Hask', at: '2031-01-01T10:00:00Z' },
});

describe('putting an engine together', () => {
  it('is ticked step by step, and tightened pass by pass, one after another', async () => {
    await signIn('bench');
    showUnfolded(<PutTogether build={together()} />);
    fireEvent.click(screen.getByRole('checkbox', { name: /19 pins.*not to be skipped/ }));
    expect(put()).toMatchObject([{ kind: 'tick', body: { stage: 'set', check: 'step 0' } }]);
    showUnfolded(<Tighten build={together()} stage="set" />);
    const second = () => screen.getByRole('checkbox', { name: /Pass 2 of 2: on by 90°/ });
    expect(second()).toHaveProperty('disabled', true);
    const first = screen.getByRole('checkbox', { name: /Pass 1 of 2: 60 Nm/ });
    // in the other units too, and not in its own again
    expect(first.closest('label')?.textContent ?? '').toMatch(/60 Nm \(44 lbf·ft, 6\.1 kgf·m\)/);
    fireEvent.click(first);
    expect(put()[1]).toMatchObject({ body: { check: 'pass 0.0' } });
    // what cannot be read is no pass
    expect(passesOf(TORQUES).map(({ key }) => key)).toEqual(['pass 0.0', 'pass 0.1']);
    expect(passesLeft(TORQUES, new Set())).toEqual([]);
    expect(passesLeft(TORQUES, new Set(['pass 0.0'])).map(({ key }) => key)).toEqual(['pass 0.1']);
  });

  it('a pass is free once the one before it is done', async () => {
    await signIn('bench');
    showUnfolded(<Tighten build={together([tick('pass 0.0')])} stage="set" />);
    expect(screen.getByRole('checkbox', { name: /Pass 2 of 2/ })).toHaveProperty('disabled', false);
  });
});

describe('a count that does not balance', () => {
  const ledger = [
    {
      ...{ id: 'l', by: 'Tobin Hask', at: '2031-01-01T09:00:00Z' },
      lines: [
        {
          ...{
            key: 'bolt',
            group: 'cover',
            name: 'Bolt',
            place: '',
            way: 'unsaid',
            expected: 2,
            out: 2,
            in: 1,
          },
          ...{ note: '', dropped: false },
        },
      ],
    },
  ] as BuildView['ledger'];
  it('is explained by a lead, with why', async () => {
    await signIn('bench');
    show(<ExplainLedger build={build({ stage: 'close', ledger })} />);
    expect(screen.getByText(/nobody signs this build off/)).toBeTruthy();
    await signIn('lead');
    show(<ExplainLedger build={build({ stage: 'close', ledger })} />);
    fireEvent.click(screen.getByRole('button', { name: /It will not balance/ }));
    fireEvent.click(screen.getByRole('button', { name: 'It stands so' }));
    expect(put()).toEqual([]);
    type('Why it does not balance', 'sheared');
    fireEvent.click(screen.getByRole('button', { name: 'It stands so' }));
    expect(put()).toMatchObject([
      { kind: 'note', body: { stage: 'close', text: 'The count does not balance: sheared' } },
      { kind: 'tick', body: { stage: 'close', check: 'ledger-explained', done: true } },
    ]);
  });
});
