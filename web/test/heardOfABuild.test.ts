import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Course } from '../builds/course.ts';
import { lay } from '../builds/lay.ts';

const row = (point: string) =>
  ({ id: `row-${point}`, roundId: 'r', point, takenAt: '2031-01-01T00:00:00Z', earlier: 0 }) as ReadingRow;
const round = { id: 'r', kind: 'as-found', readings: [row('1I')] } as unknown as Round;

describe('what is heard of a build', () => {
  const told = (seq: number, ...changes: object[]) => ({ seq, changes }) as never;
  const tick = (done: boolean) => ({
    kind: 'tick',
    row: { stage: 'set', check: 'marks', done, by: 'x', at: 'y' },
  });

  it('is laid in once, whichever way it comes first, and in its order', () => {
    const course = new Course();
    expect(course.begin(4)).toBe('something');
    expect(course.begin(4)).toBe('nothing');
    expect(course.hear(told(5, tick(true)))).toEqual({ changes: [tick(true)], gap: false });
    expect(course.hear(told(5, tick(true)))).toEqual({ changes: [], gap: false });
    expect(course.hear(told(7, tick(true))).changes).toHaveLength(1);
    // what came late says nothing of how it is now
    expect(course.hear(told(6, tick(false)))).toEqual({ changes: [], gap: false });
  });

  it('is noticed where something of it is missing, unless that comes after all', () => {
    const course = new Course();
    course.begin(1);
    expect(course.hear(told(3)).gap).toBe(true);
    expect(course.hear(told(2)).gap).toBe(false);
    expect(course.giveUpWaiting()).toBe(false);
    expect(course.hear(told(6)).gap).toBe(true);
    expect(course.giveUpWaiting()).toBe(true);
    expect(course.hear(told(7)).gap).toBe(false);
    expect(course.begin(9)).toBe('something');
  });

  it('begins anew where the records were put back to an earlier day', () => {
    const course = new Course();
    course.begin(40);
    course.hear(told(41, tick(true)));
    expect(course.begin(12)).toBe('all');
    expect(course.hear(told(13, tick(false))).changes).toHaveLength(1);
    expect(course.over('ticks', { seq: 12, rows: [] }).rows).toHaveLength(1);
  });

  it('loses nothing in any order, and says so where anything is left out', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([1, 2, 3, 4, 5, 6, 7, 8], { minLength: 1 }), (order) => {
        const course = new Course();
        course.begin(0);
        const gap = order.map((seq) => course.hear(told(seq)).gap).at(-1);
        expect(gap).toBe(Math.max(...order) > order.length);
      }),
    );
  });

  it('is laid over what was asked for before it was written', () => {
    const course = new Course();
    course.hear(told(5, tick(true)));
    expect(course.over('ticks', { seq: 4, rows: [] }).rows).toHaveLength(1);
    expect(course.over('ticks', { seq: 5, rows: [] }).rows).toEqual([]);
    expect(course.over('notes', { seq: 4, rows: [] }).rows).toEqual([]);
  });
});

describe('a row that is laid in', () => {
  const readings = (known: ReadingRow[], ...news: ReadingRow[]) =>
    news.reduce(
      (rounds, row) => lay<'rounds'>(rounds, { kind: 'reading', row }),
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
    const rounds = lay<'rounds'>([round, other], { kind: 'reading', row: later });
    expect(rounds[1]).toBe(other);
    const note = { id: 'n', stage: 'set' as const, text: 'x', by: 'y', at: 'z' };
    const notes = lay<'notes'>([note], { kind: 'note', row: { ...note, id: 'm' } });
    expect(notes[0]).toBe(note);
    expect(lay<'notes'>(notes, { kind: 'note', row: null })).toBe(notes);
  });

  it('is taken out of the settings that stand where another stands in its place', () => {
    const set = (id: string, superseded = false) => ({ id, point: '1I', kind: 'left', superseded }) as never;
    const first = lay<'settings'>([], { kind: 'setting', row: set('a') });
    expect(lay<'settings'>(first, { kind: 'setting', row: set('b') })).toMatchObject([{ id: 'b' }]);
    expect(lay<'settings'>(first, { kind: 'setting', row: set('late', true) })).toBe(first);
  });
});
