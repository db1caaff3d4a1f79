import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bridgedPoints,
  bridgesOpen,
  camsPositionOpen,
  checkKey,
  hasCheck,
  heldDownToSet,
  judgedAgain,
  obstaclesTo,
  subjectOf,
  toolsIn,
  statusOf,
  type BuildStatus,
  type CheckState,
} from '../builds/index.ts';
import { mmFromTenths } from '../length/index.ts';
import { judge, limitsFromMm, stacksOf, whyNoProof } from '../measuring/index.ts';
import {
  adjusterAt,
  adviseSetting,
  aimFor,
  aimsOutside,
  allowedBy,
  chartSays,
  effectiveLimits,
  markDiffers,
  readChart,
  readMark,
  settingBlades,
  sizesOf,
  writeChart,
} from '../setting/index.ts';
import type { Means, Pattern } from '../sheets/index.ts';
import { build as keptBuild, shims } from './keptBuild.ts';
import { inlineFour, inlineSix } from './patterns.ts';

const LIMITS = [
  { role: 'intake' as const, min: 0.1, max: 0.2, asWritten: '0.10–0.20' },
  { role: 'exhaust' as const, min: 0.2, max: 0.3, asWritten: '' },
];
const none = { aim: 'middle' as const, own: [], allowOver: [], singleRule: null };

describe('the limits a build goes by', () => {
  it('are the sheet’s, with what the shop takes over the greatest', () => {
    expect(effectiveLimits(LIMITS, none)).toEqual(
      LIMITS.map((row) => ({
        ...row,
        figure: null,
        asFound: null,
        whenHot: null,
        allowOver: 0,
        aimedOutside: false,
      })),
    );
    const [intake, exhaust] = effectiveLimits(LIMITS, {
      ...none,
      allowOver: [{ role: 'exhaust', over: 0.01 }],
    });
    expect([intake!.allowOver, exhaust!.allowOver]).toEqual([0, 0.01]);
    const over = { lo: 2900, hi: 3100 };
    expect(judge(over, limitsFromMm(exhaust!))).toEqual({ verdict: 'in-spec', onLimit: true });
    expect(judge({ lo: 1990, hi: 2100 }, limitsFromMm(exhaust!)).verdict).toBe('undecided-low');
  });

  it('take over the greatest what the sheet says; the shop’s figure stands only where an older sheet says nothing', () => {
    const shop = [{ role: 'exhaust' as const, over: 0.02 }];
    const [intake, exhaust] = LIMITS;
    expect(allowedBy([intake!, exhaust!], shop)).toEqual(shop);
    expect(allowedBy([intake!, { ...exhaust!, allowance: { over: 0 } }], shop)).toEqual([]);
    expect(allowedBy([{ ...intake!, allowance: { over: 0.01 } }, exhaust!], [])).toEqual([
      { role: 'intake', over: 0.01 },
    ]);
  });

  it('lie about an aim outside the band, as wide as the sheet’s, and nothing is allowed over them', () => {
    const own = [
      { role: 'intake' as const, target: 0 },
      { role: 'exhaust' as const, target: 0.25 },
    ];
    expect(aimsOutside(LIMITS, own)).toEqual([own[0]]);
    const [intake, exhaust] = effectiveLimits(LIMITS, {
      ...{ aim: 'own', own, allowOver: [{ role: 'intake', over: 0.02 }], singleRule: null },
    });
    expect(intake).toMatchObject({ min: 0, max: 0.05, allowOver: 0, aimedOutside: true });
    expect(exhaust).toMatchObject({ min: 0.2, max: 0.3, aimedOutside: false });
    // figures that are not aimed at now change nothing
    expect(effectiveLimits(LIMITS, { ...none, own })[0]).toMatchObject({ min: 0.1, aimedOutside: false });
    expect(aimFor('own', 'exhaust', { min: 2000, max: 3000 }, own)).toBe(2500);
    expect(aimFor('own', 'brake', { min: 2000, max: 3000 }, own)).toBe(2500);
    expect(aimFor('loose-end', 'exhaust', { min: 2000, max: 3000 }, own)).toBe(2750);
  });

  it('always hold the aim, and are never wider than the sheet’s', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000 }), fc.integer({ min: 1, max: 2000 }), (tenths, width) => {
        const limits = [
          { role: 'intake' as const, min: 0.2, max: mmFromTenths(2000 + width), asWritten: '' },
        ];
        const target = mmFromTenths(tenths);
        const [row] = effectiveLimits(limits, {
          aim: 'own',
          own: [{ role: 'intake', target }],
          allowOver: [],
          singleRule: null,
        });
        expect(row!.min).toBeLessThanOrEqual(target);
        expect(row!.max).toBeGreaterThanOrEqual(target);
        expect(row!.max - row!.min).toBeLessThanOrEqual(mmFromTenths(width) + 1e-9);
      }),
    );
  });

  it('judge readings that were taken before the aim was changed, and leave alone what stays the same', () => {
    const hollow = new Set<string>();
    const reading = {
      ...{ point: '1I', reading: { kind: 'bracket', go: 0.15, noGo: 0.16 }, narrowBlade: false },
      ...{ lo: 0.15, hi: 0.16, floor: true, verdict: 'in-spec' as const, onLimit: false },
      limits: { min: 0.1, max: 0.2, allowOver: 0 },
    };
    const rounds = [
      { kind: 'as-set' as const, readings: [reading] },
      {
        kind: 'as-set' as const,
        readings: [
          {
            ...reading,
            point: '1E',
            verdict: 'tight' as const,
            limits: { min: 0.2, max: 0.3, allowOver: 0 },
          },
        ],
      },
    ];
    expect(judgedAgain(rounds, inlineSix, { limits: LIMITS, hollow, settings: [] })).toBe(rounds);
    const aimed = effectiveLimits(LIMITS, {
      ...{ aim: 'own', own: [{ role: 'intake', target: 0 }], allowOver: [], singleRule: null },
    });
    const [first, second] = judgedAgain(rounds, inlineSix, { limits: aimed, hollow, settings: [] });
    expect(first!.readings[0]).toMatchObject({ verdict: 'loose', lo: 0.15, limits: { min: 0 } });
    expect(second).toBe(rounds[1]);
    // a hollow that was marked later counts for what was felt before, but not for a narrower blade
    const bridged = { limits: LIMITS, hollow: new Set(['1I']), settings: [] };
    expect(judgedAgain(rounds, inlineSix, bridged)[0]!.readings[0]).toMatchObject({
      ...{ verdict: 'undecided-high', hi: null },
    });
    const narrow = [{ kind: 'as-set' as const, readings: [{ ...reading, narrowBlade: true }] }];
    expect(judgedAgain(narrow, inlineSix, bridged)).toBe(narrow);
  });
});

describe('a tool that holds a valve down', () => {
  const ON_BUCKET = {
    ...inlineSix,
    means: { ...{ kind: 'shim', seat: 'on-bucket', sizes: { from: 2, to: 3, step: 0.05 } } } as never,
  };
  it('is only where shims lie on top of their buckets, and is in until it is unticked', () => {
    expect(heldDownToSet(inlineSix)).toEqual([]);
    expect(heldDownToSet(ON_BUCKET)).toHaveLength(12);
    expect(subjectOf('tool', checkKey('tool', '3E'))).toBe('3E');
    expect(subjectOf('tool', 'cover')).toBeNull();
    const tick = (check: string, done: boolean, stage: 'set' | 'prove' = 'set') => ({ check, done, stage });
    expect(
      toolsIn([
        tick(checkKey('tool', '1I'), true),
        tick(checkKey('tool', '1E'), false),
        tick(checkKey('tool', '2I'), true, 'prove'),
      ]),
    ).toEqual(['1I']);
  });

  it('stands against leaving the stage', () => {
    const status = {
      ...{
        job: 'rebuild',
        stage: 'set',
        ticked: new Set(),
        points: [],
        accepted: new Set(),
        offBase: new Set(),
      },
      ...{ asFound: new Map(), toSetBy: new Map(), proved: new Map(), set: new Set(), signedOff: false },
      ...{
        bare: [],
        unbalanced: [],
        camsPositionUnsaid: false,
        assemblyLeft: [],
        capsLoose: [],
        bareHeld: [],
        undecided: [],
        newParts: [],
        unlimited: [],
        ...{ unreached: [], apart: [], headsToTighten: [], answers: { count: null } },
      },
    } as unknown as BuildStatus;
    expect(obstaclesTo({ ...status, heldDown: [] })).toEqual([]);
    expect(obstaclesTo({ ...status, heldDown: ['1I', '1E'] })).toMatchObject([
      { code: 'tool_in', points: ['1I', '1E'] },
    ]);
  });
});

describe('an adjuster of which not everything is known', () => {
  const screw = (means: Partial<Means>): Pattern => ({
    ...inlineSix,
    means: {
      ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.5, locking: 'lock-nut', torqueNm: null },
      ...means,
    } as Means,
  });
  const advice = (means: Partial<Means>, lo = 1000) =>
    adviseSetting({
      ...{ pattern: screw(means), role: 'intake', measured: { lo, hi: lo + 100, floor: true } },
      ...{ target: 1500, limits: { min: 1300, max: 1700 }, installed: null },
    });

  it('is set by the blade where its pitch is not known: which way is said, and no angle', () => {
    expect(advice({ pitch: null })).toEqual({ kind: 'by-blade', direction: 'loosen' });
    expect(advice({ pitch: null }, 1900)).toEqual({ kind: 'by-blade', direction: 'tighten' });
    expect(advice({ pitch: null }, 1450)).toEqual({ kind: 'by-blade', direction: 'none' });
    expect(adjusterAt(screw({ pitch: null }), 'intake')).toBeNull();
  });

  it('has an angle without the rocker’s ratio only where it acts on the valve and the gap is taken there', () => {
    expect(advice({ rockerRatio: null }).kind).toBe('turn');
    expect(advice({ rockerRatio: null })).toEqual(advice({ rockerRatio: 1.5 }));
    expect(advice({ rockerRatio: null, end: 'pushrod' }).kind).toBe('by-blade');
    expect(advice({ rockerRatio: null, gapAt: 'cam' }).kind).toBe('by-blade');
    expect(adjusterAt(screw({ rockerRatio: null, end: 'pushrod' }), 'intake')).toBeNull();
  });
});

describe('setting a screw', () => {
  it('is done between two blades of the band, the target between them', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 3, max: 60 }), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 2 }),
        fc.integer({ min: 20, max: 40 }),
        (hundredths, maxStack, aim) => {
          const blades = hundredths.map((each) => each / 100);
          const spec = { min: 0.15, max: 0.45 };
          const target = aim / 100;
          const { go, noGo } = settingBlades({ blades, maxStack, target, ...spec, repeatability: 0.005 });
          const inside = stacksOf(
            blades.map((mm) => Math.round(mm * 1e4)),
            maxStack,
          )
            .map(({ thickness }) => thickness)
            .filter((thickness) => thickness >= 1500 && thickness <= 4500);
          const under = inside.filter((thickness) => thickness <= aim * 100);
          const over = inside.filter((thickness) => thickness > aim * 100);
          // whatever is chosen proves the band: the one goes in it at or under the target, the other over it
          expect(go === null).toBe(under.length === 0);
          if (go) expect(under).toContain(Math.round(go.thickness * 1e4));
          expect(noGo === null).toBe(go === null || over.length === 0);
          if (noGo) expect(over).toContain(Math.round(noGo.thickness * 1e4));
          // one blade before a stack, where one lies as near
          const single = blades.filter(
            (mm) => mm <= target + 1e-9 && mm >= Math.max(spec.min, target - 0.075) - 1e-9,
          );
          if (single.length > 0) expect(go!.blades).toEqual([Math.max(...single)]);
        },
      ),
    );
  });

  it('sets off what locking will add, and goes by no reading from before it', () => {
    const screw = {
      ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.5, locking: 'lock-nut', torqueNm: null },
    } as const;
    const turn = (lockShift: number) =>
      adviseSetting({
        ...{
          pattern: { ...inlineSix, roleMeans: {}, means: screw as Means },
          role: 'intake' as const,
          lockShift,
        },
        ...{ measured: { lo: 1000, hi: 1000 }, target: 1500, limits: { min: 1000, max: 2000 } },
        installed: null,
      });
    expect(turn(0)).toMatchObject({ turn: { degrees: 18 } });
    // locking opens it by 0.02: so much less is loosened
    expect(turn(0.02)).toMatchObject({ turn: { degrees: 10.8 } });
    const reading = {
      ...{ verdict: 'in-spec' as const, offBase: false, takenAt: '2031-01-01T10:00:00Z', beforeLock: true },
      reading: { kind: 'value' },
    };
    expect(whyNoProof(reading, null)).toBe('before-lock');
    expect(whyNoProof(reading, '2031-01-01T11:00:00Z')).toBe('changed-since');
    expect(whyNoProof({ ...reading, beforeLock: false }, null)).toBeNull();
  });
});

describe('a bridge', () => {
  it('is balanced before the lash over it is set, and only where there is one', () => {
    expect(bridgedPoints(inlineSix)).toEqual([]);
    expect(bridgedPoints(inlineFour)).toEqual(['1E', '2E', '3E', '4E']);
    const guided = { ...inlineFour, bridgeKind: 'guided' as const };
    const set = (point: string, kind: 'turned' | 'left' = 'turned') => ({ point, kind, at: '' });
    const open = (done: boolean, ...settings: ReturnType<typeof set>[]) =>
      bridgesOpen({
        sheet: { pattern: guided },
        settings,
        ticks: [{ stage: 'set', check: checkKey('bridge', '1E'), done, at: '' }],
      });
    expect(open(true, set('1E'), set('2E'), set('1Ia'))).toEqual(['2E']);
    expect(open(false, set('1E'))).toEqual(['1E']);
    expect(open(false, set('1E', 'left'))).toEqual([]);
    expect(hasCheck('set', checkKey('bridge', '1E'), guided)).toBe(true);
    expect(hasCheck('set', checkKey('bridge', '1Ia'), guided)).toBe(false);
    expect(hasCheck('prove', checkKey('bridge', '1E'), guided)).toBe(false);
    // a plain bridge has no screw to balance it by
    expect(hasCheck('set', checkKey('bridge', '1E'), inlineFour)).toBe(false);
    expect(bridgesOpen({ sheet: { pattern: inlineFour }, settings: [set('1E')], ticks: [] })).toEqual([]);
  });
});

describe('the position in which cams come out', () => {
  const pinned = {
    ...shims('under-bucket'),
    camsOut: { at: 0, lockedBy: 'a pin', first: 'tension off' },
  };
  const check = checkKey('cams-out-position');
  const at = '2031-01-01T08:00:00Z';
  const fitted = { point: '1Ia', kind: 'fitted' as const, at };
  const obstacles = (pattern: Pattern, ticks: readonly CheckState[], settings = [fitted]) =>
    obstaclesTo(statusOf(keptBuild({ sheet: { pattern }, settings, ticks: [...ticks] })))
      .map(({ code }) => code)
      .filter((code) => code === 'cams_position_open');

  it('is said before a cap is slackened: by a piece under a cam, or by a cam that came out', () => {
    const tick = (done: boolean, key = check) => ({ stage: 'set' as const, check: key, done, at });
    expect(obstacles(pinned, [])).toEqual(['cams_position_open']);
    expect(obstacles(pinned, [tick(true)])).toEqual([]);
    expect(obstacles(pinned, [tick(false)])).toEqual(['cams_position_open']);
    expect(obstacles(pinned, [], [])).toEqual([]);
    expect(obstacles(pinned, [tick(true, 'cam-A')], [])).toEqual(['cams_position_open']);
    expect(camsPositionOpen({ sheet: { pattern: pinned }, ticks: [] })).toBe(true);
  });

  it('is asked of no engine whose sheet has none, nor of one whose cam stays where it is', () => {
    expect(obstacles(shims('under-bucket'), [])).toEqual([]);
    expect(hasCheck('set', check, shims('under-bucket'))).toBe(false);
    expect(hasCheck('set', check, pinned)).toBe(true);
    expect(obstacles({ ...shims('on-bucket'), camsOut: pinned.camsOut }, [])).toEqual([]);
  });
});

describe('the mark on a piece', () => {
  const sizes = (from: number, to: number, step: number) => sizesOf({ from, to, step });
  const made = sizes(2, 3, 0.05);
  it.each([
    ['265', 26_500],
    ['2.65', 26_500],
    ['2,65', 26_500],
    ['2650', 26_500],
    ['X265', 26_500],
    ['65', 26_500],
    ['266', null],
    ['24.5', null],
    ['', null],
    ['A', null],
  ])('%s is read as a size that is made, or not at all', (mark, expected) => {
    expect(readMark(mark, made, 'mm')).toBe(expected);
  });

  it('is not read where more than one size explains it, and in thou where it is stamped so', () => {
    expect(readMark('65', sizes(2, 4, 0.05), 'mm')).toBeNull();
    const thou = sizes(2.286, 2.794, 0.0254);
    expect(readMark('100', thou, 'thou')).toBe(25_400);
    expect(readMark('.100', thou, 'thou')).toBeNull();
    expect([markDiffers(26_500, 26_400), markDiffers(26_500, 26_390)]).toEqual([false, true]);
  });

  it('of every size made is read as that size', () => {
    fc.assert(
      fc.property(fc.constantFrom(...made), (size) => {
        expect(readMark((size / 10_000).toFixed(2), made, 'mm')).toBe(size);
        expect(readMark(String(size / 100), made, 'mm')).toBe(size);
      }),
    );
  });
});

describe('a maker’s chart', () => {
  const text = 'gap; 2.40; 2.45\n0.00-0.10; 2.30; 2.35\n0.10–0.20\tkeep\tkeep\n0,20-0,30 2,50 -';
  it('is read as it is typed or pasted, and says what is fitted', () => {
    const chart = readChart(text);
    if ('error' in chart) throw new Error(chart.error);
    expect(chart.installed).toEqual([2.4, 2.45]);
    const says = (lo: number, hi: number, piece: number) => chartSays(chart, { lo, hi }, piece);
    expect(says(0.05, 0.06, 2.4)).toBe(2.3);
    expect(says(0.15, 0.16, 2.452)).toBe('keep');
    expect(says(0.25, 0.26, 2.45)).toBeNull();
    // no such row, and no such column
    expect(says(0.5, 0.51, 2.4)).toBeUndefined();
    expect(says(0.05, 0.06, 2.6)).toBeUndefined();
    // where two rows meet the wider gap's holds
    expect(says(0.1, 0.1, 2.4)).toBe('keep');
    expect(readChart(writeChart(chart))).toEqual(chart);
  });

  it.each([
    ['', /Line 1/],
    ['gap; 2.40', /range of gaps is missing/],
    ['gap; 2.40; x\n0-0.1; 2.3; 2.3', /Line 1/],
    ['gap; 2.40\nwide; 2.30', /Line 2: “wide” is no range/],
    ['gap; 2.40\n0.2-0.1; 2.30', /Line 2/],
    ['gap; 2.40\n0-0.1; 2.30; 2.35', /Line 2: 2 pieces under 1/],
    ['gap; 2.40\n0-0.1; thin', /Line 2: “thin” is no piece/],
  ])('%s is not read, and says which line is wrong', (typed, said) => {
    expect(readChart(typed)).toMatchObject({ error: expect.stringMatching(said) as string });
  });
});
