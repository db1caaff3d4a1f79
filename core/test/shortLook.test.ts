import { describe, expect, it } from 'vitest';
import { leftOfLook, pointsOfLook, seasonAfter, suspectsOf } from '../rechecks/index.ts';

const ALL = ['1I', '1E', '2I', '2E'];
const said = (point: string, more: object = {}) => ({ point, pTight: 0, pLoose: 0, unlike: null, ...more });

describe('a short look', () => {
  it('takes its sample in the order of the head, and whatever is suspect beside it', () => {
    expect(pointsOfLook(ALL, ['2E', '1I'], [])).toEqual(['1I', '2E']);
    expect(pointsOfLook(ALL, ['1I'], ['2I'])).toEqual(['1I', '2I']);
    // no sample, one of another head, and one that leaves nothing out are looks at everything
    expect(pointsOfLook(ALL, [], ['2I'])).toBeNull();
    expect(pointsOfLook(ALL, ['7B'], [])).toBeNull();
    expect(pointsOfLook(ALL, ['1I', '1E'], ['2E', '2I'])).toBeNull();
    // of a sample with one point of another head the others stand
    expect(pointsOfLook(ALL, ['7B', '1E'], [])).toEqual(['1E']);
  });

  it('holds suspect what moves unlike its neighbours, and what may be out on either side', () => {
    const forecast = [
      said('1I'),
      said('1E', { unlike: 'tighter' }),
      said('2I', { pTight: 0.1, pLoose: 0.1 }),
      said('2E', { pLoose: 0.19 }),
    ] as const;
    expect(suspectsOf(forecast as never)).toEqual(['1E', '2I']);
    expect(suspectsOf([])).toEqual([]);
  });

  it.each(['tight', 'loose', 'undecided', 'undecided-low', 'undecided-high', 'conflict'])(
    'is of the whole head once a point of it is %s',
    (verdict) => {
      const read = (of: string) => [{ point: '1I', verdict: of }];
      expect(leftOfLook(ALL, ['1I', '2E'], read('in-spec'))).toEqual(['2E']);
      expect(leftOfLook(ALL, ['1I', '2E'], read(verdict))).toEqual(['1E', '2I', '2E']);
      expect(leftOfLook(ALL, null, read(verdict))).toEqual(['1E', '2I', '2E']);
    },
  );

  it('is judged by what was measured beside its sample too', () => {
    const read = [
      { point: '1I', verdict: 'in-spec' },
      { point: '2I', verdict: 'loose' },
    ];
    expect(leftOfLook(ALL, ['1I'], read)).toEqual(['1E', '2E']);
  });
});

describe('a season', () => {
  it.each([
    ['2030-05-01', '10-01', '03-31', '2030-10-01', '2031-03-31'],
    ['2030-12-01', '10-01', '03-31', '2031-10-01', '2032-03-31'],
    ['2030-05-01', '06-01', '08-15', '2030-06-01', '2030-08-15'],
    ['2030-05-01', '06-01', '06-01', '2030-06-01', '2030-06-01'],
    ['2030-05-01', '10-01', '02-29', '2030-10-01', '2031-02-28'],
  ])('looked for from %s, from %s to %s, is that of %s', (after, before, until, from, last) => {
    expect(seasonAfter({ before, until }, after)).toEqual({ from, until: last });
  });

  it('may have no end, or not be named at all', () => {
    expect(seasonAfter({ before: '10-01' }, '2030-05-01')).toEqual({ from: '2030-10-01', until: null });
    expect(seasonAfter({ before: null, until: '03-31' }, '2030-05-01')).toBeNull();
  });
});
