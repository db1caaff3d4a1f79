import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { UpdateSequence } from '../builds/updateSequence.ts';
import { applyRow } from '../builds/rooms.ts';
import '../start/rooms.ts';

const row = (point: string) =>
  ({ id: `row-${point}`, roundId: 'r', point, takenAt: '2031-01-01T00:00:00Z', earlier: 0 }) as ReadingRow;
const round = { id: 'r', kind: 'as-found', readings: [row('1I')] } as unknown as Round;

describe('the sequence of updates of a build', () => {
  const told = (seq: number, ...changes: object[]) => ({ seq, changes }) as never;
  const tick = (done: boolean) => ({
    kind: 'tick',
    row: { stage: 'set', check: 'marks', done, by: 'x', at: 'y' },
  });

  it('is applied once, whichever way it comes first, and in its order', () => {
    const sequence = new UpdateSequence();
    expect(sequence.begin(4)).toBe('something');
    expect(sequence.begin(4)).toBe('nothing');
    expect(sequence.take(told(5, tick(true)))).toEqual({ changes: [tick(true)], gap: false });
    expect(sequence.take(told(5, tick(true)))).toEqual({ changes: [], gap: false });
    expect(sequence.take(told(7, tick(true))).changes).toHaveLength(1);
    // what came late says nothing of how it is now
    expect(sequence.take(told(6, tick(false)))).toEqual({ changes: [], gap: false });
  });

  it('is noticed where something of it is missing, unless that comes after all', () => {
    const sequence = new UpdateSequence();
    sequence.begin(1);
    expect(sequence.take(told(3)).gap).toBe(true);
    expect(sequence.take(told(2)).gap).toBe(false);
    expect(sequence.giveUpWaiting()).toBe(false);
    expect(sequence.take(told(6)).gap).toBe(true);
    expect(sequence.giveUpWaiting()).toBe(true);
    expect(sequence.take(told(7)).gap).toBe(false);
    expect(sequence.begin(9)).toBe('something');
  });

  it('begins again where the records were put back to an earlier day', () => {
    const sequence = new UpdateSequence();
    sequence.begin(40);
    sequence.take(told(41, tick(true)));
    expect(sequence.begin(12)).toBe('all');
    expect(sequence.take(told(13, tick(false))).changes).toHaveLength(1);
    expect(sequence.over('ticks', { seq: 12, rows: [] }).rows).toHaveLength(1);
  });

  it('loses nothing in any order, and says so where anything is left out', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([1, 2, 3, 4, 5, 6, 7, 8], { minLength: 1 }), (order) => {
        const sequence = new UpdateSequence();
        sequence.begin(0);
        const gap = order.map((seq) => sequence.take(told(seq)).gap).at(-1);
        expect(gap).toBe(Math.max(...order) > order.length);
      }),
    );
  });

  it('is applied to what was asked for before it was written', () => {
    const sequence = new UpdateSequence();
    sequence.take(told(5, tick(true)));
    expect(sequence.over('ticks', { seq: 4, rows: [] }).rows).toHaveLength(1);
    expect(sequence.over('ticks', { seq: 5, rows: [] }).rows).toEqual([]);
    expect(sequence.over('notes', { seq: 4, rows: [] }).rows).toEqual([]);
  });
});

describe('a row that is applied', () => {
  const readings = (known: ReadingRow[], ...news: ReadingRow[]) =>
    news.reduce(
      (rounds, row) => applyRow<'rounds'>(rounds, { kind: 'reading', row }),
      [{ ...round, readings: known }],
    )[0]!.readings;
  const later = { ...row('1I'), id: 'later', takenAt: '2031-06-01T00:00:00Z' };

  it('stands where it was taken last, whichever came first', () => {
    expect(readings([row('1I')], later)).toEqual([later]);
    expect(readings([later], row('1I'))).toMatchObject([{ id: 'later', earlier: 1 }]);
    expect(readings([row('1I')], { ...later, superseded: true })).toMatchObject([
      { id: 'row-1I', earlier: 1 },
    ]);
  });

  it('leaves every row it does not change as it is', () => {
    const other = { ...round, id: 'other' };
    const rounds = applyRow<'rounds'>([round, other], { kind: 'reading', row: later });
    expect(rounds[1]).toBe(other);
    const note = { id: 'n', stage: 'set' as const, text: 'x', by: 'y', at: 'z' };
    const notes = applyRow<'notes'>([note], { kind: 'note', row: { ...note, id: 'm' } });
    expect(notes[0]).toBe(note);
    expect(applyRow<'notes'>(notes, { kind: 'note', row: null })).toBe(notes);
  });

  it('is taken out of the settings that stand where another stands in its place', () => {
    const set = (id: string, superseded = false) => ({ id, point: '1I', kind: 'left', superseded }) as never;
    const first = applyRow<'settings'>([], { kind: 'setting', row: set('a') });
    expect(applyRow<'settings'>(first, { kind: 'setting', row: set('b') })).toMatchObject([{ id: 'b' }]);
    expect(applyRow<'settings'>(first, { kind: 'setting', row: set('late', true) })).toBe(first);
  });
});
