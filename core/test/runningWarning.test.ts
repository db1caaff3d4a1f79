import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runningWarning } from '../rechecks/index.ts';

const last = { usage: 1522, on: '2031-01-01' };

describe('a running figure', () => {
  it('is asked about where that much cannot have been run since, with a decimal point put back as what was meant', () => {
    expect(runningWarning(15_300, last, '2031-01-11', 'hours')).toEqual({ meant: 1530 });
    expect(runningWarning(15_304, last, '2031-01-11', 'hours')).toEqual({ meant: 1530.4 });
    expect(runningWarning(152_900, last, '2031-01-11', 'hours')).toEqual({ meant: null });
    expect(runningWarning(3000, last, '2031-01-02', 'hours')).toEqual({ meant: null });
  });

  it('that can have been run is not asked about, nor is a lower one, which is another question', () => {
    for (const typed of [1522, 1530, 1786, 3])
      expect(runningWarning(typed, last, '2031-01-11', 'hours')).toBeNull();
    expect(runningWarning(1787, last, '2031-01-11', 'hours')).not.toBeNull();
    expect(runningWarning(16_000, last, '2031-01-11', 'km')).toBeNull();
  });

  it('ten times off is always asked about, once an engine has run more than it can in the time', () => {
    const run = fc.integer({ min: 1, max: 20 });
    fc.assert(
      fc.property(fc.integer({ min: 5000, max: 90_000 }), run, (usage, more) => {
        const from = { usage, on: '2031-01-01' };
        expect(runningWarning((usage + more) * 10, from, '2031-01-02', 'hours')).toEqual({
          meant: usage + more,
        });
        expect(runningWarning(usage + more, from, '2031-01-02', 'hours')).toBeNull();
      }),
    );
  });
});
