import { describe, expect, it } from 'vitest';
import {
  bothNames,
  lashPoints,
  layOutHeads,
  makersName,
  namesComplaint,
  pointNamed,
  rowComplaint,
  stepOnHead,
  valvesAlong,
  type Pattern,
} from '../sheets/index.ts';
import {
  firstSchool,
  mayMeasurePoint,
  planStops,
  signsInWords,
  tableDifferences,
  wayToStop,
} from '../turning/index.ts';
import { inlineFour, inlineSix, vTwelve } from './patterns.ts';

/** A V-six with one row of valves a head, numbered along it by its maker, and the maker's table of pairs. */
const ridge: Pattern = {
  ...inlineSix,
  layout: 'v',
  bankAngle: 60,
  cylinders: [1, 2, 3, 4, 5, 6].map((number) => ({
    id: String(number),
    bank: number % 2 === 1 ? ('A' as const) : ('B' as const),
    place: Math.ceil(number / 2),
    firesAt: (number - 1) * 120,
  })),
  timing: { ivoBtdc: 14, ivcAbdc: 50, evoBbdc: 52, evcAtdc: 12, assumed: false },
  marks: [0, 360],
  valveRow: { splayed: false, A: 'EIIEEI', B: 'IEEIIE' },
  makersNames: { '1E': '1', '1I': '2', '3I': '3', '2I': '7', '6E': '12', '4': 'rear left' },
  makersPairs: [
    { open: ['1E'], points: ['4E', '2I'] },
    { open: ['2E'], points: ['5E', '3I'] },
    { open: ['3E'], points: ['6E', '4I'] },
    { open: ['4E'], points: ['1E', '5I'] },
    { open: ['5E'], points: ['2E', '6I'] },
    { open: ['6E'], points: ['3E', '1I'] },
  ],
};

describe('the maker’s names', () => {
  it('stand before ours, and find the point in any case', () => {
    expect(bothNames(ridge, '6E')).toBe('12 (6E)');
    expect(bothNames(ridge, '5E')).toBe('5E');
    expect(pointNamed(ridge, '12')).toBe('6E');
    expect(pointNamed(ridge, '6e')).toBe('6E');
    expect(pointNamed(ridge, '13')).toBeUndefined();
  });

  it('are both names of a bridged pair, and of a closing side say so', () => {
    const bridged = { ...inlineFour, makersNames: { '1Ea': '3', '1Eb': '4', '2Ea': '7' } };
    expect(makersName(bridged, '1E')).toBe('3+4');
    expect(pointNamed(bridged, '4')).toBe('1E');
    // half a name of a pair is none
    expect(makersName(bridged, '2E')).toBeUndefined();
    expect(makersName({ ...vTwelve, makersNames: { '1Ia': '7' } }, '1Ia-c')).toBe('7 closing');
  });

  it.each([
    [{ '1I': '5', '1E': '5' }, '1I and 1E are both called 5'],
    [{ '1I': 'front', '2I': 'Front' }, '1I and 2I are both called front'],
    [{ '9I': '5' }, 'there is no 9I to name'],
    [{ '1I': '1e' }, '1e is what 1E is called here: 1I cannot have it'],
  ])('cannot be %o', (makersNames, complaint) => {
    expect(namesComplaint({ ...inlineSix, makersNames })).toBe(complaint);
  });

  it('may give a cylinder and a valve the same number', () => {
    expect(namesComplaint({ ...inlineSix, makersNames: { '1E': '2', '3': 'three' } })).toBeNull();
  });
});

describe('valves in one row', () => {
  it('stand along each head as the row says', () => {
    expect(valvesAlong(ridge, 'B')).toEqual(['2I', '2E', '4E', '4I', '6I', '6E']);
    const map = layOutHeads(ridge);
    for (const bank of ['A', 'B'] as const) {
      const along = map.places
        .filter(({ point }) => ridge.cylinders.find(({ id }) => id === point.cylinder)!.bank === bank)
        .toSorted((a, b) => a.x - b.x);
      expect(along.map(({ point }) => point.key)).toEqual(valvesAlong(ridge, bank));
      expect(new Set(along.map(({ y }) => y)).size).toBe(1);
    }
    expect(stepOnHead(map, '1E', 'right')).toBe('1I');
    expect(stepOnHead(map, '5I', 'right')).toBe('5I');
  });

  it('have places of their own where they lean, where a bridge takes two, and where they are drawn shut', () => {
    const leaning = { ...ridge, valveRow: { ...ridge.valveRow!, splayed: true } };
    const bridged: Pattern = {
      ...inlineFour,
      valveRow: { splayed: false, A: 'IIEEEEIIIIEEEEII', B: '' },
    };
    const shut: Pattern = { ...ridge, closingSide: true };
    for (const pattern of [leaning, bridged, shut]) {
      const { places, width, height, bores } = layOutHeads(pattern);
      expect(places).toHaveLength(lashPoints(pattern).length);
      for (const [index, { point, x, y }] of places.entries()) {
        expect(x).toBeGreaterThanOrEqual(0.5);
        expect(x).toBeLessThanOrEqual(width - 0.5);
        expect(y).toBeLessThanOrEqual(height - 0.49);
        for (const other of places.slice(index + 1))
          expect(
            Math.max(Math.abs(x - other.x), Math.abs(y - other.y)),
            `${point.key} ${other.point.key}`,
          ).toBeGreaterThan(0.99);
      }
      expect(bores).toHaveLength(pattern.cylinders.length);
    }
    // the pair under a bridge has its one point between its valves
    const of = (key: string) => layOutHeads(bridged).places.find(({ point }) => point.key === key)!.x;
    expect(of('1E')).toBeGreaterThan(of('1Ib'));
    expect(of('2E')).toBeLessThan(of('2Ia'));
  });

  it.each([
    ['EIIEE', '5 letters for the 6 valves of its row'],
    ['EEIEEI', 'cylinder 1 has 1 I and 1 E'],
    ['EIIEEI', null],
  ])('%s: %s', (order, complaint) => {
    expect(rowComplaint(ridge, 'A', order)).toBe(complaint);
  });
});

describe('the maker’s table of pairs', () => {
  const plan = planStops(ridge, 'open-pair');

  it('is the school’s six stops, each told by the valve it names', () => {
    expect(firstSchool(ridge)).toBe('open-pair');
    expect(plan.stops).toHaveLength(6);
    expect(plan.unreachable).toEqual([]);
    const first = plan.stops.find(({ points }) => points.includes('4E'))!;
    expect(first.fullyOpen[0]).toBe('1E');
    expect(first.angle).toBe(250);
    expect(wayToStop(ridge, first, null)).toContain('until 1 (1E) is fully open');
    expect(signsInWords(ridge, first).at(-1)).toContain('7 (2I)');
    // without the table, the same engine is gone round in twelve
    expect(planStops({ ...ridge, makersPairs: [] }, 'open-pair').stops.length).toBeGreaterThan(6);
  });

  it('agrees with the geometry; where it does not, that is said, and it governs', () => {
    expect(tableDifferences(ridge)).toEqual({ differences: [], missing: [] });
    const odd = { ...ridge, makersPairs: [{ open: ['1E'], points: ['1E', '3E'] }] };
    expect(tableDifferences(odd).differences[0]?.open).toContain('1E');
    expect(tableDifferences(odd).missing).toContain('2I');
    const [stop] = planStops(odd, 'open-pair').stops;
    expect(mayMeasurePoint(odd, '1E', stop!.angle)).toBe(true);
    expect(mayMeasurePoint(ridge, '1E', stop!.angle)).toBe(false);
  });

  it('takes rows that stand at one place as one stop, and of two valves the middle between them', () => {
    const [more, stop] = planStops(
      {
        ...ridge,
        makersPairs: [
          { open: ['1E'], points: ['4E'] },
          { open: ['1E'], points: ['2I'] },
          { open: ['6E', '1I'], points: ['3E'] },
        ],
      },
      'open-pair',
    ).stops;
    expect(stop?.points).toEqual(['3E']);
    // 6E stands open at 130°, 1I at 468°: the shorter way round its middle is 299°
    expect(stop?.angle).toBe(299);
    expect(more?.points).toEqual(['4E', '2I']);
  });
});
