import {
  boltsInRows,
  sequenceComplaint,
  torqueWarning,
  parseTorqueSteps,
  tightenOrder,
  wrenchesFor,
} from '@zero-lash/core/assembly';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const steps = (text: string) => {
  const read = parseTorqueSteps(text);
  if ('error' in read) return read.error;
  return read.steps.map((step) =>
    step.kind === 'angle'
      ? `${step.degrees}°`
      : step.kind === 'by-hand'
        ? step.asWritten
        : step.toNm === undefined
          ? Math.round(step.nm * 100) / 100
          : `${Math.round(step.nm * 100) / 100}–${Math.round(step.toNm * 100) / 100}`,
  );
};

describe('steps of tightening as a sheet writes them', () => {
  it.each([
    ['8 Nm, then 14 Nm', [8, 14]],
    ['20 N·m + 90°', [20, '90°']],
    ['20, 40 and 60 Nm', [20, 40, 60]],
    ['8,5 Nm; 14,5 Nm', [8.5, 14.5]],
    ['15 lbf·ft then turn 60 degrees', [20.34, '60°']],
    ['100 in lb', [11.3]],
    ['1.2 kgf·m', [11.77]],
    ['finger-tight, then 8 Nm', ['finger-tight', 8]],
    ['nipped up; 20 N·m + 90°', ['nipped up', 20, '90°']],
    ['hand tight', ['hand tight']],
    ['89 inch-pounds', [10.06]],
    ['10–11 lbf·ft', ['13.56–14.91']],
    ['20 to 24 ft-lbs, then 90°', ['27.12–32.54', '90°']],
    ['20 Nm, threads oiled, then 60 Nm', [20, 60]],
    ['45 Nm dry', [45]],
    ['12 foot pounds with thread locking fluid', [16.27]],
  ])('reads “%s”', (text, read) => expect(steps(text)).toEqual(read));

  it.each([
    ['', 'no torque is given'],
    ['tight', '“tight” is no torque and no angle'],
    ['14', '“14” has no unit that is known: N·m, lbf·ft, lbf·in or kgf·m'],
    ['14 mm', '“14 mm” has no unit that is known: N·m, lbf·ft, lbf·in or kgf·m'],
    ['24–20 Nm', '“24–20 Nm”: the least comes first'],
    ['oiled', '“oiled” is no torque and no angle'],
    ['14 Nm, then 900°', '“900°” is no angle to turn on by'],
    ['1400 Nm', '“1400 Nm”: no fastening of a valve train or a head is tightened to over 500 N·m'],
    ['0 Nm', '“0 Nm”: a torque of nothing is “finger-tight” or “nipped up”'],
  ])('says of “%s” what it does not understand', (text, error) => expect(steps(text)).toBe(error));

  it('keeps what the threads are given with the figure it belongs to', () => {
    const read = parseTorqueSteps('20 Nm, threads oiled, then 60 Nm');
    expect('error' in read ? [] : read.steps.map(({ asWritten }) => asWritten)).toEqual([
      '20 Nm, threads oiled',
      '60 Nm',
    ]);
  });

  it('understands every torque it is given in any of its units', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 2, max: 40 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom('Nm', 'N·m', 'lbf·ft', 'lbf·in', 'kgf·m'),
        (values, unit) => {
          const read = parseTorqueSteps(values.map((value) => `${value} ${unit}`).join(', then '));
          if ('error' in read) return read.error.includes('no fastening of a valve train');
          return read.steps.length === values.length && read.steps.every(({ asWritten }) => asWritten !== '');
        },
      ),
    );
  });
});

describe('the wrench for each torque', () => {
  const small = { id: 'small', from: 2, to: 25 };
  const large = { id: 'large', from: 20, to: 110 };
  const by = (text: string) => {
    const read = parseTorqueSteps(text);
    return 'error' in read ? [] : wrenchesFor(read.steps, [large, small]).map(({ wrench }) => wrench);
  };

  it('is the one with the least range that reaches it; an angle wants none', () => {
    expect(by('8 Nm, then 22 Nm, then 45 Nm, then 90°')).toEqual(['small', 'small', 'large']);
  });
  it('is none beyond them all, and reaches the very ends of its range', () => {
    // a range is reached where both its ends are
    expect(by('20–24 Nm, then 22–28 Nm, then 100–120 Nm')).toEqual(['small', 'large', null]);
    expect(by('1 Nm, then 2 Nm, then 110 Nm, then 145 Nm')).toEqual([null, 'small', 'large', null]);
  });
});

describe('bolts in rows', () => {
  it('are numbered row by row from the front, spread over the head’s length', () => {
    expect(boltsInRows([3, 2]).map(({ id, x, y }) => [id, x, y])).toEqual([
      ['1', 0, 1],
      ['2', 1, 1],
      ['3', 2, 1],
      ['4', 0, 0],
      ['5', 2, 0],
    ]);
    expect(boltsInRows([5, 1, 5]).find(({ id }) => id === '6')).toEqual({ id: '6', x: 2, y: 1 });
  });
  it('can be put in an order, whatever the rows', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }), (rows) => {
        const bolts = boltsInRows(rows);
        const { tighten } = tightenOrder({ bolts });
        expect(sequenceComplaint(rows, tighten.map(Number))).toBeNull();
        expect(new Set(bolts.map(({ x, y }) => `${x} ${y}`)).size).toBe(bolts.length);
      }),
    );
  });
  it.each([
    [[2, 2], [], null],
    [[2, 2], [1, 4, 2, 3], null],
    [[], [1], 'say first how many bolts each row has'],
    [[2, 2], [1, 4, 2], 'bolt 3 is not in the order'],
    [[2, 2], [1, 4, 4, 3], 'bolt 4 is in the order twice'],
    [[2, 2], [1, 4, 5, 3], 'there is no bolt 5: the rows have 4'],
  ])('of rows %j warning the order %j: %s', (rows, sequence, said) =>
    expect(sequenceComplaint(rows, sequence)).toBe(said),
  );
});

describe('a torque that can hardly be meant', () => {
  it.each([
    ['Cover bolts', '90 Nm', 9],
    ['Cover bolts', '0.9 Nm', 9],
    ['Cam caps', '8 Nm, then 140 Nm', 14],
    ['Head nuts', '6 Nm, then 14 Nm', 140],
    ['Rocker shaft', '20 Nm, then 300 Nm', 30],
  ])('of %s, %s, is asked about', (fastening, steps, meantNm) => {
    expect(torqueWarning(fastening, steps)).toMatchObject({ meantNm });
  });

  it('is a later step under an earlier one as well, and nothing that a maker gives', () => {
    expect(torqueWarning('Head nuts', '145 Nm, then 60 Nm')).toMatchObject({
      written: '60 Nm',
      meantNm: null,
    });
    for (const [fastening, steps] of [
      ['Head nuts', '60 Nm, then 145 Nm'],
      ['Head bolts', '20 Nm, then 45 Nm, then 90°'],
      ['Cam caps', '8 Nm, then 14 Nm'],
      ['Cover bolts', '9 Nm'],
      ['Cover bolts', '80 lbf·in'],
      ['Rocker shaft', '20 Nm, then 60 Nm'],
      ['Manifold', '25 Nm'],
      // of what is called nothing known nothing is known to hold it against
      ['Tensioner', '1.5 Nm'],
      ['Head bolts', '90°'],
      ['Head bolts', 'hand tight'],
    ] as const)
      expect(torqueWarning(fastening, steps), `${fastening} ${steps}`).toBeNull();
  });
});
