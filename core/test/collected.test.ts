import { describe, expect, it } from 'vitest';
import { collectedPoints, pieceSystem, type PieceChoice } from '../setting/index.ts';
import type { SetBuild } from '../setting/setBuild.ts';
import { meansFor } from '../sheets/index.ts';
import { all, build, POINTS, reading, shims } from './keptBuild.ts';

const [ONE, TWO] = POINTS as [string, string];

/** A check of an engine on shims: two points read tight, with what is in at them. */
function lap(seat: 'on-bucket' | 'under-bucket', inNow: Readonly<Record<string, number>>): SetBuild {
  const pattern = shims(seat);
  const tight = { verdict: 'tight' as const, lo: 0.06, hi: 0.07, floor: true };
  const sound = { lo: 0.12, hi: 0.13, floor: true };
  const readings = all(1).map((each) =>
    [ONE, TWO].includes(each.point) ? { ...each, ...tight } : { ...each, ...sound },
  );
  return {
    ...build({ job: 'valve-check', stage: 'set' }),
    sheet: {
      pattern,
      limits: ['intake', 'exhaust'].map((role) => ({ role, min: 0.1, max: 0.16, asWritten: '' })),
      wearLimits: [],
    },
    rounds: [{ kind: 'as-found', readings, closedAt: null }],
    settings: [],
    wear: [
      {
        ...{ id: 'w', by: 'Osk Velland', at: '2031-01-01T08:00:00Z' },
        lines: Object.entries(inNow).map(([place, mm]) => ({
          ...{ kind: 'figure', item: 'piece-in', place, field: 'value', values: [mm], asTyped: `${mm}` },
          ...{ how: 'measured', set: 'found', doubtKept: false },
        })),
      },
    ] as unknown as SetBuild['wear'],
    aim: 'middle',
    ownAims: null,
  } as unknown as SetBuild;
}
const system = pieceSystem(meansFor(shims('on-bucket'), 'intake'))!.key;
const drawer = (...sizes: number[]): PieceChoice => ({
  drawer: {
    systems: [
      {
        ...{ system, price: 0, sizePrices: [] },
        sizes: sizes.map((thickness) => ({ thickness, count: 1 })),
      },
    ],
  },
  guard: 0.004,
});

describe('pieces that are collected in a lap', () => {
  it('are those that neither the drawer nor the bench has: a piece in hand is fitted where the crank stands', () => {
    const both = lap('on-bucket', { [ONE]: 2.75, [TWO]: 2.6 });
    // 0.065 is 0.065 short of the middle: a piece of 2.70 leaves 0.115, and it is in hand
    expect([...collectedPoints(both, drawer(2.7))]).toEqual([TWO]);
    expect([...collectedPoints(both, drawer(2.7, 2.55))]).toEqual([]);
    // a device that does not know the drawer sends nobody on
    expect([...collectedPoints(both, { drawer: null, guard: 0.004 })]).toEqual([]);
  });

  it('are measured first where nobody knows what is in, and are all of them where a cam comes out', () => {
    expect([...collectedPoints(lap('on-bucket', {}), drawer())]).toEqual([]);
    expect([...collectedPoints(lap('under-bucket', {}), drawer(2.7))]).toEqual([ONE, TWO]);
  });

  it('are none where nothing is out', () => {
    const sound = lap('under-bucket', {});
    const rounds = [
      {
        ...sound.rounds[0]!,
        readings: [{ ...sound.rounds[0]!.readings[4]!, ...reading(ONE, 1, 'in-spec') }],
      },
    ];
    expect([...collectedPoints({ ...sound, rounds } as unknown as SetBuild, drawer())]).toEqual([]);
  });
});
