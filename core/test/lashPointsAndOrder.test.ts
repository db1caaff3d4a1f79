import { describe, expect, it } from 'vitest';
import type { Verdict } from '../measuring/index.ts';
import { lashPoints, layOutHeads, stepOnHead } from '../sheets/index.ts';
import { mayMove, obstaclesTo, obstaclesToSignOff, STAGES, type BuildStatus } from '../builds/index.ts';
import {
  addDays,
  dueState,
  isDayOfYear,
  isEmptyStep,
  nextOf,
  nextRecheck,
  stepsOn,
} from '../rechecks/index.ts';
import { inlineFour, vTwelve } from './patterns.ts';

describe('lash points', () => {
  it('are one a valve, fewer on a bridge, more with a brake rocker or a closing side', () => {
    expect(lashPoints(inlineFour).map(({ key }) => key)).toEqual([
      '1Ia',
      '1Ib',
      '1E',
      '2Ia',
      '2Ib',
      '2E',
      '2B',
      '3Ia',
      '3Ib',
      '3E',
      '4Ia',
      '4Ib',
      '4E',
    ]);
    expect(lashPoints(vTwelve)).toHaveLength(120);
    expect(new Set(lashPoints(vTwelve).map(({ key }) => key)).size).toBe(120);
  });

  it.each([inlineFour, vTwelve])('have places of their own on the head', (pattern) => {
    const { places, width, height } = layOutHeads(pattern);
    expect(places).toHaveLength(lashPoints(pattern).length);
    for (const [index, a] of places.entries()) {
      expect(a.x).toBeGreaterThanOrEqual(0.5);
      expect(a.x).toBeLessThanOrEqual(width - 0.5);
      expect(a.y).toBeLessThanOrEqual(height - 0.5);
      for (const b of places.slice(index + 1))
        expect(
          Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y)),
          `${a.point.key} ${b.point.key}`,
        ).toBeGreaterThan(0.99);
    }
  });

  it('are all reached with the arrow keys', () => {
    const map = layOutHeads(vTwelve);
    const reached = new Set([map.places[0]!.point.key]);
    for (const key of reached)
      for (const step of ['left', 'right', 'up', 'down'] as const) reached.add(stepOnHead(map, key, step));
    expect(reached.size).toBe(120);
    expect(stepOnHead(layOutHeads(inlineFour), '1Ia', 'right')).toBe('1Ib');
  });
});

describe('the order of the work', () => {
  const statusAt = (stage: BuildStatus['stage'], change: Partial<BuildStatus> = {}): BuildStatus => ({
    job: 'rebuild',
    stage,
    circumstances: { touched: true, camOut: false, hot: false },
    ticked: new Set(STAGES.flatMap(({ key, checks }) => checks.map((check) => `${key}:${check.key}`))),
    points: ['1I', '1E'],
    unlimited: [],
    unopened: [],
    unreached: [],
    apart: [],
    answers: { count: null },
    headsToTighten: [],
    accepted: new Set(),
    runIn: { cycles: 0, heads: [] },
    offBase: new Set(),
    asFound: new Map<string, Verdict>([
      ['1I', 'in-spec'],
      ['1E', 'tight'],
    ]),
    toSetBy: new Map<string, Verdict>([
      ['1I', 'in-spec'],
      ['1E', 'tight'],
    ]),
    proved: new Map<string, Verdict>([
      ['1I', 'in-spec'],
      ['1E', 'in-spec'],
    ]),
    set: new Set(['1E']),
    heldDown: [],
    ...{ bareHeld: [], capsLoose: [], nothingCounted: false, undecided: [], newParts: [] },
    bare: [],
    unbalanced: [],
    camsPositionUnsaid: false,
    assemblyLeft: [],
    partsOff: [],
    partsExplained: false,
    passesOpen: [],
    signedOff: false,
    ...change,
  });

  it('goes one stage on, or back, and never back after sign-off', () => {
    expect(mayMove('rebuild', 'as-found', 'wear')).toBe(true);
    expect(mayMove('rebuild', 'as-found', 'set')).toBe(false);
    expect(mayMove('rebuild', 'prove', 'set')).toBe(true);
    expect(mayMove('rebuild', 'run-in', 'set')).toBe(false);
  });

  it('waits for what is open, and says which points', () => {
    expect(obstaclesTo(statusAt('take-in', { ticked: new Set() }))[0]?.text).toMatch(/engine cold/);
    expect(obstaclesTo(statusAt('as-found', { asFound: new Map() }))[0]).toMatchObject({
      code: 'points_unmeasured',
      points: ['1I', '1E'],
    });
    expect(obstaclesTo(statusAt('set', { set: new Set() }))[0]).toMatchObject({
      code: 'points_unset',
      points: ['1E'],
    });
    expect(obstaclesTo(statusAt('set'))).toEqual([]);
    const proved = new Map<string, Verdict>([
      ['1I', 'loose'],
      ['1E', 'undecided-low'],
    ]);
    expect(obstaclesTo(statusAt('prove', { proved })).map(({ code }) => code)).toEqual([
      'points_undecided',
      'points_out',
    ]);
  });

  it('lets a build be signed off only when every point is proved in spec and everything is ticked', () => {
    expect(obstaclesToSignOff(statusAt('close'))).toEqual([]);
    expect(obstaclesToSignOff(statusAt('close', { proved: new Map() }))).toHaveLength(1);
    expect(obstaclesToSignOff(statusAt('close', { ticked: new Set() }))[0]?.code).toBe('checks_open');
  });
});

describe('rechecks', () => {
  const plan = [
    { afterUsage: 10, afterDays: 30 },
    { afterUsage: 250, afterDays: null },
  ];

  it('follow the plan, and the last step repeats', () => {
    const from = { day: '2031-01-31', usage: 100 };
    expect(nextRecheck(plan, 1, from)).toEqual({
      ...{ dueUsage: 110, dueDate: '2031-03-02', dueCycles: null, season: null },
    });
    expect(nextRecheck(plan, 7, from)).toEqual({
      ...{ dueUsage: 350, dueDate: null, dueCycles: null, season: null },
    });
    expect(nextRecheck(plan, 1, from, true)).toEqual({
      dueUsage: 105,
      dueDate: '2031-02-15',
      dueCycles: null,
      season: null,
    });
    // without a meter nothing comes due by running, and a step of running alone is none
    const steps = [
      { afterUsage: 10, afterDays: null },
      { afterUsage: 250, afterDays: 365 },
    ];
    expect(stepsOn(steps, 'hours')).toBe(steps);
    expect(stepsOn(steps, 'none')).toEqual([{ afterUsage: null, afterDays: 365 }]);
    expect(() => nextRecheck([], 1, from)).toThrow(RangeError);
    const empty = [{ afterUsage: null, afterDays: null }];
    expect(() => nextRecheck(empty, 1, from)).toThrow(RangeError);
    expect(isEmptyStep(empty[0]!)).toBe(true);
    expect(addDays('2032-02-28', 1)).toBe('2032-02-29');
  });

  it('go by heat cycles and before a season as well, whichever is first', () => {
    const from = { day: '2031-01-31', usage: 100, cycles: 4 };
    const step = { afterUsage: null, afterDays: 120, afterCycles: 7, before: '04-15' };
    expect(nextRecheck([step], 1, from)).toEqual({
      ...{ dueUsage: null, dueDate: '2031-04-15', dueCycles: 11 },
      season: { from: '2031-04-15', until: null },
    });
    // a season begins when it begins; what is watched comes in half the days and half the heat
    expect(nextRecheck([step], 1, from, true)).toEqual({
      ...{ dueUsage: null, dueDate: '2031-04-01', dueCycles: 7 },
      season: { from: '2031-04-15', until: null },
    });
    expect(nextRecheck([{ ...step, afterDays: null, before: '01-31' }], 1, from).dueDate).toBe('2032-01-31');
    expect(nextOf('02-29', '2031-01-01')).toBe('2031-02-28');
    expect(nextOf('02-29', '2031-12-01')).toBe('2032-02-29');
    for (const [text, is] of [
      ...[
        ['02-29', true],
        ['12-31', true],
        ['02-30', false],
        ['00-10', false],
        ['1-1', false],
      ],
    ] as const)
      expect(isDayOfYear(text as string), text as string).toBe(is);
  });

  it.each([
    [3, 'coming'],
    [9, 'coming'],
    [10, 'due'],
    [11, 'overdue'],
  ] as const)('with %d heat cycles of ten are %s, unless a lead holds them back', (cycles, state) => {
    const due = { dueUsage: null, dueDate: null, dueCycles: 10 };
    const now = { day: '2031-01-01', usage: 0, cycles };
    expect(dueState(due, { usage: 0, cycles: 2 }, now)).toBe(state);
    expect(dueState(due, { usage: 0, cycles: 2 }, now, 'held', true)).toBe('waiting');
    expect(dueState(due, { usage: 0, cycles: 2 }, now, 'out', true)).toBe('not-held');
  });

  it.each([
    ['2031-01-15', 105, 'coming'],
    ['2031-02-24', 105, 'due'],
    ['2031-01-15', 109, 'due'],
    ['2031-01-15', 110, 'due'],
    ['2031-01-15', 110.1, 'overdue'],
    ['2031-03-02', 105, 'due'],
    ['2031-03-03', 105, 'overdue'],
  ] as const)('on %s at %d are %s', (day, usage, state) => {
    expect(dueState({ dueUsage: 110, dueDate: '2031-03-02' }, 100, { day, usage })).toBe(state);
  });

  it('comes before any date where the recheck before it did not find every gap held', () => {
    const coming = { dueUsage: 110, dueDate: '2031-03-02' };
    const now = { day: '2031-01-01', usage: 100 };
    expect(dueState(coming, 100, now, 'held')).toBe('coming');
    for (const after of ['out', 'undecided'] as const)
      expect(dueState(coming, 100, now, after)).toBe('not-held');
  });
});
