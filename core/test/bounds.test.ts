import {
  BOUNDS,
  impossible,
  impossibleDay,
  isUnusual,
  saysSomething,
  type Quantity,
} from '@zero-lash/core/bounds';
import { saysOtherwise, type Reading } from '@zero-lash/core/measuring';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const quantities = Object.keys(BOUNDS) as Quantity[];

describe('the table of bounds', () => {
  it.each(quantities)(
    'says of %s what is refused, at both ends, and asks only about what can be',
    (quantity) => {
      const { least, most, under, over } = BOUNDS[quantity];
      expect(impossible(quantity, least)).toBeNull();
      expect(impossible(quantity, most)).toBeNull();
      expect(impossible(quantity, least - 0.001)).toBe(under);
      expect(impossible(quantity, most + 0.001)).toBe(over);
      fc.assert(
        fc.property(fc.double({ min: least - 10, max: most + 10, noNaN: true }), (value) => {
          if (isUnusual(quantity, value)) expect(impossible(quantity, value)).toBeNull();
        }),
      );
    },
  );

  it('takes what the odd engines have', () => {
    for (const [quantity, value] of [
      ['thickness', 1.2],
      ['limit', 0],
      ['limit', 0.4],
      ['band', 0.05],
      ['limit', 1.651],
      ['turned', -90],
      ['torque', 2.5],
      ['cut', 0.3],
      ['km', 1_200_000],
    ] as const)
      expect(impossible(quantity, value), `${quantity} ${value}`).toBeNull();
  });

  it.each([
    ['check', '1900-01-01', 'that is over 10 years ago'],
    ['check', '2035-06-01', null],
    ['recheck', '2199-01-01', 'that is over 20 years from now'],
    ['recheck', '2031-03-13', null],
    ['meter', '2031-03-13', 'that has not come yet'],
  ] as const)('knows of a day of a %s, %s, that it %s', (kind, day, why) => {
    expect(impossibleDay(kind, day, '2031-03-12')).toBe(why);
  });

  it.each([
    ['.', false],
    ['', false],
    ['x', false],
    ['- 1 -', false],
    ['ok', true],
    ['α β', true],
    ['焼付', true],
    ['the nut was loose', true],
  ])('takes “%s” for a reason: %s', (text, is) => expect(saysSomething(text)).toBe(is));
});

describe('what was typed beside a reading', () => {
  const value = (mm: number): Reading => ({ kind: 'value', value: mm, uncertainty: 0.01 });
  const bracket: Reading = { kind: 'bracket', go: 0.13, noGo: 0.15 };

  it.each<[string, Reading, boolean]>([
    ['0.15', value(0.15), false],
    ['6 thou', value(0.1524), false],
    ['6', value(0.1524), false],
    // the point slipped, and what was meant was taken
    ['1.5', value(0.15), false],
    // asked about by other limits than the point's own: nothing is in, and a whole piece is missing
    ['31', value(3.1), false],
    ['0.30', value(0.15), true],
    ['0.13 0.15', bracket, false],
    ['0.13', bracket, false],
    ['0.13 0.16', bracket, true],
    ['>0.30', { kind: 'go-only', go: 0.13 }, true],
    ['goes, will not', bracket, false],
    ['0.152 mm', value(0.152), false],
    ['0.30', { kind: 'tries', tries: [], repeatability: 0.01 } as Reading, false],
  ])('%s agrees with it, or says otherwise', (typed, reading, otherwise) => {
    expect(saysOtherwise(typed, reading)).toBe(otherwise);
  });
});
