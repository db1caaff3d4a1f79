import { describe, expect, it } from 'vitest';
import { judged } from '../../scripts/bench/rows.mjs';

describe('a row of the bench', () => {
  const row = {
    name: 'tap',
    what: (middle: (of: (turn: { ms: number }) => number) => number) => `A tap: ${middle(({ ms }) => ms)}`,
    figures: [
      {
        of: ({ ms }: { ms: number }) => ms,
        show: (figure: number) => `${figure} ms`,
        met: (figure: number) => figure < 50,
      },
    ],
    aim: 'under 50 ms',
  };
  const run = (...figures: number[]) => figures.map((ms) => ({ ms }));

  it('is met by the middle of its whole runs alone: neither a good turn nor a good run meets it', () => {
    expect(judged(row, [run(40, 60, 60), run(60, 10, 60), run(1, 2, 3)])).toEqual({
      ...{ what: 'A tap: 40 [tap]', result: '60 ms (1 to 60)', aim: 'under 50 ms', met: false },
    });
    expect(judged(row, [run(40, 60, 40), run(45, 10, 48), run(99, 99, 99)])).toMatchObject({
      ...{ result: '45 ms (10 to 99)', met: true },
    });
  });

  it('shows no spread where everything came out the same', () => {
    expect(judged(row, [run(2)]).result).toBe('2 ms');
  });
});
