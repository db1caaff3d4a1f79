import { describe, expect, it } from 'vitest';
import {
  cautionsAt,
  checkKey,
  checkInWords,
  countsFrom,
  disturbances,
  disturbedBy,
  hasCheck,
  obstaclesToSignOff,
  provenBy,
  stageOf,
  subjectOf,
  statusOf,
  undoneBy,
  type BuildState,
  type SettingState,
} from '../builds/index.ts';
import type { Verdict } from '../measuring/index.ts';
import type { Pattern } from '../sheets/index.ts';
import { all, at, build, POINTS, reading, SCREWS, setting, shims } from './keptBuild.ts';

/** The first two cylinders under one head, the others under another. */
const banksOf = ({ cylinders }: Pattern) =>
  cylinders.map((cylinder, index) => ({ ...cylinder, bank: index < 2 ? ('A' as const) : ('B' as const) }));

describe('a change', () => {
  it('disturbs its own point by a screw or on top of a bucket, and all along the head where the cam came out', () => {
    expect(disturbedBy(SCREWS, '2E')).toEqual(['2E']);
    expect(disturbedBy(shims('on-bucket'), '2E')).toEqual(['2E']);
    expect(disturbedBy(shims('under-bucket'), '2E')).toEqual(POINTS);
    expect(disturbedBy(shims('under-finger'), '2E')).toEqual(POINTS);
    expect(disturbedBy(SCREWS, '9X')).toEqual([]);
  });

  it('at one head of a vee leaves the other as it was', () => {
    const vee = { ...shims('under-bucket'), layout: 'v' as const, cylinders: banksOf(SCREWS) };
    expect(new Set(disturbedBy(vee, '1E').map((key) => key[0]))).toEqual(new Set(['1', '2']));
  });

  it('under one of two cams leaves the other cam’s points as they were, where the sheet says that there are two', () => {
    const twin = { ...shims('under-bucket'), camsAbove: 'two' as const };
    const exhausts = POINTS.filter((key) => key[1] !== 'I');
    expect(disturbedBy(twin, '2E')).toEqual(exhausts);
    expect(disturbedBy({ ...twin, camsAbove: 'unsaid' }, '2E')).toEqual(POINTS);
    expect(disturbances(twin).map(({ key, points }) => [key, points.length])).toEqual([
      ['cam-A-intake', POINTS.length - exhausts.length],
      ['cam-A-exhaust', exhausts.length],
      ['newcam-A', POINTS.length],
      ['head-A', POINTS.length],
    ]);
    const proved = build({
      stage: 'close',
      sheet: { pattern: twin },
      rounds: [{ kind: 'proved', readings: all(30) }],
      ticks: [...build({}).ticks, { stage: 'set', check: 'cam-A-exhaust', done: true, at: at(35) }],
    });
    expect(obstaclesToSignOff(statusOf(proved)).flatMap(({ points }) => points)).toEqual(exhausts);
    expect(checkInWords('set', 'cam-A-exhaust')).toBe('Exhaust cam of head A taken out');
  });

  it('of a cover whose bolts hold the cams is one of every cam under it, once it was on and came off again', () => {
    const held = { ...shims('on-bucket'), coverHoldsCams: true };
    const cover = (change: object) => ({
      stage: 'close' as const,
      check: 'cover',
      at: at(50),
      done: true,
      ...change,
    });
    const left = (pattern: Pattern, tick: object) =>
      obstaclesToSignOff(
        statusOf(
          build({
            stage: 'close',
            sheet: { pattern },
            rounds: [{ kind: 'proved', readings: all(30) }],
            ticks: [...build({}).ticks.filter(({ check }) => check !== 'cover'), cover(tick)],
          }),
        ),
      ).flatMap(({ points }) => points);
    expect(left(held, {})).toEqual([]);
    expect(left(held, { earlier: [at(35)] })).toEqual(POINTS);
    expect(left(held, { earlier: [at(25)] })).toEqual([]);
    expect(left({ ...held, coverHoldsCams: false }, { earlier: [at(35)] })).toEqual([]);
    expect(cautionsAt('set', held).join()).toContain('put them back with spacers');
    expect(cautionsAt('set', shims('on-bucket')).join()).not.toContain('spacers');
  });

  it('at the closing side bears on the opening side of its own valve', () => {
    const drawnShut = { ...SCREWS, closingSide: true };
    expect(disturbedBy(drawnShut, '1Ib-c')).toEqual(['1Ib', '1Ib-c']);
  });

  it('of one point takes no proof from another, whichever round that was in', () => {
    const rounds: BuildState['rounds'] = [
      { kind: 'proved', readings: all(30) },
      { kind: 'proved', readings: [reading('2E', 40, 'in-spec')] },
    ];
    const left = (settings: readonly SettingState[], pattern: BuildState['sheet']['pattern'] = SCREWS) =>
      obstaclesToSignOff(statusOf(build({ stage: 'close', rounds, settings, sheet: { pattern } }))).flatMap(
        ({ points }) => points,
      );
    expect(left([setting('2E', 35)])).toEqual([]);
    expect(left([setting('2E', 45)])).toEqual(['2E']);
    expect(left([setting('2E', 35, 'fitted')], shims('under-bucket'))).toEqual(
      POINTS.filter((key) => key !== '2E'),
    );
  });

  it('after a recheck is proved again, and what the recheck found holds for the rest; the next recheck’s does not', () => {
    const found = all(30).map((one) => (one.point === '2E' ? reading('2E', 30, 'tight') : one));
    const opened: Partial<BuildState> = {
      stage: 'close',
      rounds: [
        { kind: 'as-found', carried: true, readings: found },
        { kind: 'proved', readings: [reading('2E', 40, 'in-spec')] },
      ],
      settings: [setting('2E', 35)],
    };
    expect(obstaclesToSignOff(statusOf(build(opened)))).toEqual([]);
    expect([...provenBy({ ...build(opened) }).keys()].sort()).toEqual([...POINTS].sort());
    // and is shown so: only what was touched waits for the two turns
    const turned = [{ stage: 'prove' as const, check: 'two-turns', done: true, at: at(38) }];
    expect([...countsFrom(build({ ...opened, ticks: turned })).keys()]).toEqual(['2E']);
    const own = [{ kind: 'as-found' as const, readings: found }, ...opened.rounds!.slice(1)];
    expect(obstaclesToSignOff(statusOf(build({ ...opened, rounds: own })))[0]?.points).toHaveLength(
      POINTS.length - 1,
    );
  });

  it('is proved again as far as the shop wants it, and never less than it bears on', () => {
    expect(disturbedBy(SCREWS, '2E', 'cylinder')).toEqual(POINTS.filter((key) => key.startsWith('2')));
    expect(disturbedBy(SCREWS, '2E', 'every-point')).toEqual(POINTS);
    expect(disturbedBy(shims('under-bucket'), '2E', 'cylinder')).toEqual(POINTS);
    const proved = build({
      stage: 'close',
      rounds: [{ kind: 'proved', readings: all(30) }],
      settings: [setting('2E', 35)],
      provesAgain: 'cylinder',
    });
    expect(obstaclesToSignOff(statusOf(proved))[0]!.points).toEqual(
      POINTS.filter((key) => key.startsWith('2')),
    );
  });
});

describe('what was slackened', () => {
  const keys = (pattern: Pattern) => disturbances(pattern).map(({ key }) => key);

  it('is what the engine has: a shaft over screws, a cam over shims, a head on each bank', () => {
    const always = ['cam-A', 'newcam-A', 'head-A'];
    expect(keys(SCREWS)).toEqual(['rockers-A', ...always]);
    expect(keys(shims('on-bucket'))).toEqual(always);
    expect(keys(shims('under-bucket'))).toEqual(always);
    expect(keys(shims('under-finger'))).toEqual(['rockers-A', ...always]);
    const vee = { ...SCREWS, cylinders: banksOf(SCREWS) };
    const heads = disturbances(vee).filter(({ key }) => key.startsWith('head'));
    expect(heads.map(({ text }) => text)).toEqual([
      'Head off, or tightened again, bank A',
      'Head off, or tightened again, bank B',
    ]);
    expect(heads[0]!.points.every((point) => '12'.includes(point[0]!))).toBe(true);
    // a cam in the block works both heads
    const pushrods = { ...vee, means: { ...SCREWS.means, end: 'pushrod' } as Pattern['means'] };
    expect(disturbances(pushrods).find(({ key }) => key === 'cam-A')!.points).toEqual(POINTS);
  });

  it('takes its proof from every point it bears on, until each is measured again', () => {
    const slackened = (minute: number, done = true) =>
      build({
        stage: 'close',
        rounds: [{ kind: 'proved', readings: all(30) }],
        ticks: [...build({}).ticks, { stage: 'set' as const, check: 'rockers-A', done, at: at(minute) }],
      });
    const left = (minute: number, done?: boolean) =>
      obstaclesToSignOff(statusOf(slackened(minute, done))).flatMap(({ points }) => points);
    expect(left(35)).toEqual(POINTS);
    expect(left(35, false)).toEqual([]);
    expect(left(25)).toEqual([]);
  });

  it('is a check of its own engine where points are set, and of no other stage', () => {
    expect(hasCheck('set', 'rockers-A', SCREWS)).toBe(true);
    expect(hasCheck('set', 'rockers-B', SCREWS)).toBe(false);
    expect(hasCheck('set', 'cam-A', SCREWS)).toBe(true);
    expect(hasCheck('set', checkKey('turned-bare'), SCREWS)).toBe(false);
    expect(hasCheck('prove', 'rockers-A', SCREWS)).toBe(false);
    expect(hasCheck('prove', 'two-turns', SCREWS)).toBe(true);
    expect(hasCheck('prove', checkKey('accepted', '2E'), SCREWS)).toBe(true);
    expect(hasCheck('prove', checkKey('accepted', '9E'), SCREWS)).toBe(false);
    expect(
      [
        checkInWords('set', 'rockers-A'),
        checkInWords('set', 'rockers-A', SCREWS),
        checkInWords('set', 'no such'),
        checkInWords('prove', 'two-turns'),
        checkInWords('prove', checkKey('accepted', '2E')),
      ].join('; '),
    ).toBe(
      'Rockers of head A slackened or taken off; Rocker shaft slackened or taken off; no such; Two full turns by hand, nothing felt; 2E left as it is',
    );
  });
});

describe('a step back', () => {
  const undone = (
    stage: BuildState['stage'],
    to: BuildState['stage'],
    settings: readonly SettingState[] = [],
  ) => undoneBy(build({ stage, settings }), to).map((tick) => `${tick.stage}:${tick.check}`);

  it('opens what was closed, and leaves the two turns as they are until something is changed', () => {
    const closing = stageOf('close').checks.map(({ key }) => `close:${key}`);
    expect(undone('close', 'set')).toEqual(closing);
    expect(undone('set', 'prove')).toEqual(closing);
    expect(undone('set', 'prove', [setting('2E', 5)])).toEqual([
      'prove:tensioner',
      'prove:two-turns',
      'prove:marks',
      ...closing,
    ]);
    expect(undone('set', 'prove', [setting('2E', 5, 'left')])).toEqual(closing);
    expect(undone('close', 'open-up')).toEqual([
      ...['prove:tensioner', 'prove:two-turns', 'prove:marks'],
      ...closing,
    ]);
    expect(undone('prove', 'close')).toEqual([]);
  });
});

describe('a point that a lead lets stand', () => {
  const letStand = ({
    verdict = 'undecided-low',
    kind = 'left',
    accepted = 40,
    proved = 30,
  }: {
    readonly verdict?: Verdict;
    readonly kind?: SettingState['kind'];
    readonly accepted?: number;
    readonly proved?: number;
  } = {}) =>
    build({
      stage: 'close',
      rounds: [
        {
          kind: 'proved',
          readings: all(20).map((one) => (one.point === '2E' ? reading('2E', proved, verdict) : one)),
        },
      ],
      settings: [setting('2E', 10, kind)],
      ticks: [
        ...build({}).ticks,
        { stage: 'prove' as const, check: checkKey('accepted', '2E'), done: true, at: at(accepted) },
      ],
    });
  const obstacles = (what: Parameters<typeof letStand>[0]) =>
    obstaclesToSignOff(statusOf(letStand(what))).map(({ code }) => code);

  it('no longer stands against signing off, at an edge or wide', () => {
    for (const verdict of ['undecided-low', 'undecided-high', 'loose'] as const)
      expect(obstacles({ verdict })).toEqual([]);
  });

  it('was left alone on purpose, is not tight, and was accepted as it was last measured', () => {
    expect(obstacles({ verdict: 'tight' })).toEqual(['points_out']);
    expect(obstacles({ verdict: 'conflict' })).toEqual(['points_undecided']);
    expect(obstacles({ kind: 'turned' })).toEqual(['points_undecided']);
    expect(obstacles({ accepted: 29 })).toEqual(['points_undecided']);
    expect(subjectOf('accepted', checkKey('accepted', '1Ib-c'))).toBe('1Ib-c');
    expect(subjectOf('accepted', 'two-turns')).toBeNull();
  });
});
