import { describe, expect, it } from 'vitest';
import { bladesTyped, measuredTyped } from '../instruments/bladesTyped.ts';

describe('the blades of a set as typed', () => {
  it.each([
    ['0.05-0.07 by 0.01, 0.1', 'mm', [0.05, 0.06, 0.07, 0.1]],
    ['0.05 0.1; 0.05', 'mm', [0.05, 0.1]],
    ['12 thou', 'mm', [0.3048]],
    ['.004 to .006 by .001', 'in', [0.1016, 0.127, 0.1524]],
  ] as const)('%s', (text, unit, blades) => {
    expect(bladesTyped(text, unit)).toEqual({ blades });
  });

  it.each(['thick', '0.1-0.05 by 0.01', '0.1-0.2 by 0'])('“%s” is answered with a sentence', (text) => {
    expect(bladesTyped(text, 'mm')).toHaveProperty('error');
  });
});

describe('what blades measured as typed', () => {
  it('is a stamp and a thickness, one after another, in the set’s own unit', () => {
    expect(measuredTyped('0.30 is 0.298, 0.4 = 0.401', 'mm')).toEqual({
      measured: [
        { blade: 0.3, is: 0.298 },
        { blade: 0.4, is: 0.401 },
      ],
    });
    expect(measuredTyped('0.010 is 0.0101', 'in')).toEqual({ measured: [{ blade: 0.254, is: 0.2565 }] });
    expect(measuredTyped('  ', 'mm')).toEqual({ measured: [] });
    for (const wrong of ['0.3', '0.3 is', 'is 0.3', '0.3 is thin'])
      expect(measuredTyped(wrong, 'mm')).toHaveProperty('error');
  });
});
