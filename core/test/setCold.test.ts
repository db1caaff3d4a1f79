import { describe, expect, it } from 'vitest';
import { coldFrom, judgedAgain, meantAt, pointsHeld, type RoundState } from '../builds/index.ts';
import { limitsHeld } from '../measuring/index.ts';
import { nextRecheck, planWhereSetCold } from '../rechecks/index.ts';
import { effectiveLimits, printedCold, setColdInWords, type SetCold } from '../setting/index.ts';
import type { AlsoPrinted } from '../sheets/index.ts';
import { reading, SCREWS } from './keptBuild.ts';

const row = (role: 'intake' | 'exhaust', min: number, max: number, also: readonly AlsoPrinted[] = []) => ({
  ...{ role, min, max, figure: null, asWritten: `${min} to ${max}`, also },
});
const leave = { kind: 'leave' as const, min: 0.14, max: 0.22, figure: null, asWritten: '0.14–0.22' };
const cold = { kind: 'other-condition' as const, min: null, max: null, figure: 0.14, asWritten: '0.14' };
const LIMITS = [row('intake', 0.15, 0.2, [leave, cold]), row('exhaust', 0.2, 0.25)];
const plain = { aim: 'middle' as const, own: [], allowOver: [{ role: 'intake' as const, over: 0.02 }] };
const setCold = (foundHot: boolean): SetCold => ({
  figures: [
    ...printedCold(LIMITS, null),
    ...[{ role: 'exhaust' as const, min: 0.24, max: 0.3, figure: null, asWritten: '', provisional: true }],
  ],
  ...{ foundHot, why: 'no fuel in it' },
});
const effective = (foundHot: boolean) =>
  effectiveLimits(LIMITS, { ...plain, singleRule: null, setCold: setCold(foundHot) });
const ends = ({ min, max, allowOver }: { min: number; max: number; allowOver: number }) => [
  min,
  max,
  allowOver,
];

describe('what is set cold', () => {
  it('goes by the cold figures, without what a shop takes over the hot ones, and by the hot ones in service', () => {
    const [intake, exhaust] = effective(false);
    // one printed figure has the shop's band round it
    expect(intake).toMatchObject({ min: 0.126, max: 0.154, figure: 0.14, asFound: null, asWritten: '0.14' });
    for (const against of ['found', 'left', 'set'] as const)
      expect(ends(limitsHeld(intake!, against)), against).toEqual([0.126, 0.154, 0]);
    expect(limitsHeld(intake!, 'in-service')).toMatchObject({ min: 0.14, max: 0.22, asWritten: '0.14–0.22' });
    expect(ends(limitsHeld(exhaust!, 'in-service'))).toEqual([0.2, 0.25, 0]);
  });

  it('leaves what was found hot judged hot, and nothing else', () => {
    const [intake, exhaust] = effective(true);
    expect(limitsHeld(intake!, 'found')).toMatchObject({ min: 0.14, max: 0.22 });
    expect(ends(limitsHeld(exhaust!, 'found'))).toEqual([0.2, 0.25, 0]);
    expect(ends(limitsHeld(exhaust!, 'left'))).toEqual([0.24, 0.3, 0]);
    const sheet = { pattern: SCREWS, limits: effective(true) };
    const exhaustAt = (kind: 'as-found' | 'as-set' | 'proved' | 'recheck') => {
      const point = pointsHeld(sheet, kind, []).find(({ role }) => role === 'exhaust')!;
      return point.limits && [point.min, point.max];
    };
    expect([exhaustAt('as-found'), exhaustAt('as-set'), exhaustAt('proved'), exhaustAt('recheck')]).toEqual([
      ...[
        [0.2, 0.25],
        [0.24, 0.3],
        [0.24, 0.3],
      ],
      [0.2, 0.25],
    ]);
    const read = (kind: 'as-found' | 'proved') => ({
      kind,
      readings: [
        {
          ...{ point: '1E', reading: { kind: 'value', value: 0.22, uncertainty: 0.001 }, narrowBlade: false },
          ...{ lo: 0.219, hi: 0.221, floor: true, verdict: 'in-spec' as const, onLimit: false, limits: null },
        },
      ],
    });
    const judged = judgedAgain([read('as-found'), read('proved')], SCREWS, {
      ...{ limits: sheet.limits, hollow: new Set<string>(), settings: [] },
    });
    expect(judged.map(({ readings }) => readings[0]!.verdict)).toEqual(['in-spec', 'tight']);
  });

  it('is measured cold but where it was found hot, and hot in service', () => {
    const temperature = { from: 70, to: 90 };
    const sheet = (foundHot: boolean | null) => ({
      ...{ pattern: SCREWS, condition: 'hot' as const, temperature },
      setCold: foundHot === null ? null : { foundHot },
    });
    const at = (foundHot: boolean | null) =>
      (['as-found', 'as-set', 'proved', 'recheck', null] as const).map(
        (kind) => meantAt(sheet(foundHot), kind)?.condition,
      );
    expect(at(null)).toEqual(['hot', 'hot', 'hot', 'hot', 'hot']);
    expect(at(false)).toEqual(['cold', 'cold', 'cold', 'hot', 'cold']);
    expect(at(true)).toEqual(['hot', 'cold', 'cold', 'hot', 'cold']);
    // the temperature of the hot engine is not asked of the cold one
    expect(meantAt(sheet(false), 'as-set')?.temperature).toBeNull();
    expect(meantAt({ pattern: SCREWS }, 'as-set')).toBeNull();
  });

  it('may be said until something was set by it, and not between the two gaps of one lap', () => {
    const found: RoundState = { kind: 'as-found', readings: [reading('1I', 5, 'in-spec')] };
    const proved: RoundState = { kind: 'proved', readings: [reading('1I', 5, 'in-spec')] };
    const struck: RoundState = {
      kind: 'proved',
      readings: [{ ...reading('1I', 5, 'in-spec'), reading: { kind: 'tries', tries: [] } }],
    };
    const sheet = { pattern: SCREWS, condition: 'hot' as const };
    const from = (
      rounds: readonly RoundState[],
      job: 'rebuild' | 'valve-check' = 'rebuild',
      foundHot?: boolean,
    ) =>
      coldFrom({
        ...{ job, stage: 'set', rounds },
        sheet: { ...sheet, setCold: foundHot === undefined ? null : { foundHot } },
      });
    expect([from([]), from([found]), from([found, struck])]).toEqual(['found', 'set', 'set']);
    expect([from([found, proved]), from([found], 'valve-check')]).toEqual([null, null]);
    // said before anything was found, it stands once something was; said after, it may still be taken back
    expect([from([found], 'rebuild', false), from([found], 'rebuild', true)]).toEqual([null, 'set']);
    // what a recheck found is carried over, and was read before
    expect(from([{ ...found, carried: true }])).toBe('found');
  });

  it('says what is the maker’s and what is provisional, and is looked at before it goes into service', () => {
    const said = setColdInWords({ ...setCold(false), by: 'Osk Velland' }, (min, max) => `${min}–${max}`);
    expect(said).toBe(
      'Set cold to the maker’s cold figures: intake 0.126–0.154. Set cold, PROVISIONAL: exhaust 0.24–0.3, on the loose side. It cannot be run: no fuel in it. Osk Velland stands for it. Its gaps are measured hot before it goes into service.',
    );
    const plan = [{ afterUsage: 10, afterDays: 30 }];
    const from = { day: '2030-01-01', usage: 100 };
    // also where it is looked at sooner
    expect(nextRecheck(planWhereSetCold(plan, 1), 1, from, true)).toMatchObject({
      ...{ dueUsage: null, dueDate: '2030-01-01' },
    });
    expect(nextRecheck(planWhereSetCold(plan, 2), 2, from)).toMatchObject({ dueUsage: 110 });
    expect(planWhereSetCold([], 2)).toEqual([]);
  });
});
