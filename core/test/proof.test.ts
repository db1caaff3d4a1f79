import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cautionsAt,
  disturbedBy,
  findings,
  obstaclesTo,
  obstaclesToSignOff,
  provenBy,
  STAGE_KEYS,
  STAGES,
  stageMeasuring,
  stageOf,
  standingOf,
  type KeptBuild,
  type KeptSetting,
} from '../builds/index.ts';
import { whyNoProof, type KeptReading, type Verdict } from '../measuring/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import { inlineFour } from './patterns.ts';

const POINTS = lashPoints(inlineFour).map(({ key }) => key);
const at = (minute: number) => new Date(Date.UTC(2031, 0, 1, 8, minute)).toISOString();
const reading = (
  point: string,
  minute: number,
  verdict: Verdict,
  change: Partial<KeptReading> = {},
): KeptReading => ({
  ...{ point, verdict, takenAt: at(minute), offBase: false },
  reading: { kind: 'bracket' },
  ...change,
});
const setting = (point: string, minute: number, kind: KeptSetting['kind'] = 'turned') => ({
  point,
  kind,
  at: at(minute),
});
const SCREWS: Pattern = {
  ...inlineFour,
  roleMeans: {},
  means: { kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1, locking: 'lock-nut', torqueNm: 20 },
};
const shims = (seat: 'on-bucket' | 'under-bucket' | 'under-finger'): Pattern => ({
  ...SCREWS,
  means: {
    kind: 'shim',
    seat,
    sizes: { from: 2, to: 3, step: 0.05 },
    diameter: 9,
    marking: '',
    seatOffset: null,
  },
});
const build = (change: Partial<KeptBuild>): KeptBuild => ({
  stage: 'set',
  sheet: { pattern: SCREWS },
  ticks: STAGES.flatMap(({ key, checks }) =>
    checks.map((check) => ({ stage: key, check: check.key, done: true })),
  ),
  rounds: [],
  settings: [],
  signOff: null,
  ...change,
});
const all = (minute: number, verdict: Verdict = 'in-spec') =>
  POINTS.map((point) => reading(point, minute, verdict));

describe('a reading', () => {
  it('proves something only on the base circle, while it is not taken back, and of what was in then', () => {
    const taken = reading('1E', 5, 'in-spec');
    expect(whyNoProof(taken, null)).toBeNull();
    expect(whyNoProof(taken, at(4))).toBeNull();
    expect(whyNoProof(taken, at(6))).toBe('changed-since');
    expect(whyNoProof({ ...taken, offBase: true }, null)).toBe('off-base');
    expect(whyNoProof({ ...taken, reading: { kind: 'tries', tries: [] } }, null)).toBe('withdrawn');
    expect(whyNoProof({ ...taken, reading: { kind: 'tries', tries: [{}] } }, null)).toBeNull();
  });
});

describe('a check', () => {
  it('that was unticked stands against leaving its stage as one that never was ticked does', () => {
    const [first, ...rest] = build({}).ticks.filter(({ stage }) => stage === 'open-up');
    for (const ticks of [rest, [{ ...first!, done: false }, ...rest]])
      expect(obstaclesTo(standingOf(build({ stage: 'open-up', ticks }))).map(({ code }) => code)).toEqual([
        'checks_open',
      ]);
    expect(obstaclesTo(standingOf(build({ stage: 'open-up' })))).toEqual([]);
  });
});

describe('what a point is set by', () => {
  const rounds: KeptBuild['rounds'] = [
    { kind: 'as-found', readings: [reading('1E', 0, 'tight'), reading('2E', 1, 'loose')] },
    { kind: 'proved', readings: [reading('1E', 40, 'loose')] },
  ];

  it('is its newest finding, and stays it through a round that found nothing', () => {
    const again = [...rounds, { kind: 'proved' as const, readings: [] }];
    for (const those of [rounds, again]) {
      const found = findings(those);
      expect([found.get('1E')?.verdict, found.get('2E')?.verdict]).toEqual(['loose', 'loose']);
    }
  });

  it('found out at proving wants setting again, however often it was set before', () => {
    const before = [setting('1E', 20), setting('2E', 20)];
    expect(obstaclesTo(standingOf(build({ rounds: rounds.slice(0, 1), settings: before })))).toEqual([]);
    expect(obstaclesTo(standingOf(build({ rounds, settings: before })))).toMatchObject([
      { code: 'points_unset', points: ['1E'] },
    ]);
    const after = [setting('1E', 50), setting('2E', 20)];
    expect(obstaclesTo(standingOf(build({ rounds, settings: after })))).toEqual([]);
  });

  it('is no reading that proved nothing', () => {
    const odd = [
      {
        kind: 'as-found' as const,
        readings: [reading('1E', 0, 'tight'), reading('2E', 1, 'loose', { offBase: true })],
      },
      { kind: 'proved' as const, readings: [reading('1E', 40, 'in-spec', { offBase: true })] },
    ];
    expect([...findings(odd)].map(([point, { verdict }]) => [point, verdict])).toEqual([['1E', 'tight']]);
  });
});

describe('a build', () => {
  const closing = (readings: readonly KeptReading[], settings: readonly KeptSetting[] = []) =>
    obstaclesToSignOff(
      standingOf(build({ stage: 'close', rounds: [{ kind: 'proved', readings }], settings })),
    );

  it('is signed off when every point is proved, and not on a reading off the base circle', () => {
    expect(closing(all(30))).toEqual([]);
    const off = all(30).map((one) => (one.point === '3E' ? { ...one, offBase: true } : one));
    expect(closing(off)).toMatchObject([{ code: 'points_off_base', points: ['3E'] }]);
  });

  it('is not signed off on what was measured before the last change, nor on what was taken back', () => {
    expect(closing(all(30), [setting('2E', 31)])).toMatchObject([
      { code: 'points_unmeasured', points: ['2E'] },
    ]);
    expect(closing(all(30), [setting('2E', 31, 'left')])).toEqual([]);
    const back = all(30).map((one) =>
      one.point === '1E'
        ? { ...one, reading: { kind: 'tries', tries: [] }, verdict: 'undecided' as const }
        : one,
    );
    expect(closing(back)).toMatchObject([{ code: 'points_unmeasured', points: ['1E'] }]);
  });

  it('of any history is signed off only where each point has a sound reading in its band since it was last changed', () => {
    const event = fc.record({
      point: fc.constantFrom(...POINTS),
      minute: fc.integer({ min: 0, max: 59 }),
      what: fc.constantFrom('read', 'off-base', 'withdrawn', 'turned', 'left', 'tight'),
    });
    fc.assert(
      fc.property(fc.array(event, { maxLength: 12 }), (events) => {
        const readings = new Map(all(30).map((one) => [one.point, one]));
        const settings = new Map<string, KeptSetting>();
        for (const { point, minute, what } of events) {
          if (what === 'turned' || what === 'left') settings.set(point, setting(point, minute, what));
          else
            readings.set(
              point,
              reading(point, minute, what === 'tight' ? 'tight' : 'in-spec', {
                offBase: what === 'off-base',
                reading: what === 'withdrawn' ? { kind: 'tries', tries: [] } : { kind: 'bracket' },
              }),
            );
        }
        const sound = [...readings.values()].every((one) => {
          const changed = settings.get(one.point);
          const late = changed?.kind === 'turned' && Date.parse(changed.at) > Date.parse(one.takenAt);
          return !one.offBase && one.reading.tries?.length !== 0 && one.verdict === 'in-spec' && !late;
        });
        expect(closing([...readings.values()], [...settings.values()]).length === 0).toBe(sound);
      }),
    );
  });
});

describe('a change', () => {
  it('disturbs its own point by a screw or on top of a bucket, and all along the head where the cam came out', () => {
    expect(disturbedBy(SCREWS, '2E')).toEqual(['2E']);
    expect(disturbedBy(shims('on-bucket'), '2E')).toEqual(['2E']);
    expect(disturbedBy(shims('under-bucket'), '2E')).toEqual(POINTS);
    expect(disturbedBy(shims('under-finger'), '2E')).toEqual(POINTS);
    expect(disturbedBy(SCREWS, '9X')).toEqual([]);
  });

  it('at one head of a vee leaves the other as it was', () => {
    const banks = inlineFour.cylinders.map((cylinder, index) => ({
      ...cylinder,
      bank: index < 2 ? ('A' as const) : ('B' as const),
    }));
    const vee = { ...shims('under-bucket'), layout: 'v' as const, cylinders: banks };
    expect(new Set(disturbedBy(vee, '1E').map((key) => key[0]))).toEqual(new Set(['1', '2']));
  });

  it('at the closing side bears on the opening side of its own valve', () => {
    const drawnShut = { ...SCREWS, closingSide: true };
    expect(disturbedBy(drawnShut, '1Ib-c')).toEqual(['1Ib', '1Ib-c']);
  });

  it('of one point takes no proof from another, whichever round that was in', () => {
    const rounds: KeptBuild['rounds'] = [
      { kind: 'proved', readings: all(30) },
      { kind: 'proved', readings: [reading('2E', 40, 'in-spec')] },
    ];
    const left = (settings: readonly KeptSetting[], pattern: KeptBuild['sheet']['pattern'] = SCREWS) =>
      obstaclesToSignOff(standingOf(build({ stage: 'close', rounds, settings, sheet: { pattern } }))).flatMap(
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
    const opened: Partial<KeptBuild> = {
      stage: 'close',
      rounds: [
        { kind: 'as-found', carried: true, readings: found },
        { kind: 'proved', readings: [reading('2E', 40, 'in-spec')] },
      ],
      settings: [setting('2E', 35)],
    };
    expect(obstaclesToSignOff(standingOf(build(opened)))).toEqual([]);
    expect([...provenBy({ ...build(opened) }).keys()].sort()).toEqual([...POINTS].sort());
    const own = [{ kind: 'as-found' as const, readings: found }, ...opened.rounds!.slice(1)];
    expect(obstaclesToSignOff(standingOf(build({ ...opened, rounds: own })))[0]?.points).toHaveLength(
      POINTS.length - 1,
    );
  });
});

describe('the cautions of a stage', () => {
  it('are those of the engine: nothing of a cam where a screw is turned, nothing of a held valve where none is held', () => {
    const at = (pattern: Pattern) => cautionsAt('set', pattern).join(' ');
    expect(at(SCREWS)).toMatch(/locked/);
    expect(at(SCREWS)).not.toMatch(/chain|holds a valve/);
    expect(at(shims('on-bucket'))).toMatch(/holds a valve down/);
    expect(at(shims('on-bucket'))).not.toMatch(/chain/);
    expect(at(shims('under-bucket'))).toMatch(/chain/);
    expect(at(shims('under-bucket'))).not.toMatch(/holds a valve/);
    const mixed: Pattern = { ...SCREWS, roleMeans: { exhaust: shims('on-bucket').means } };
    expect(cautionsAt('set', mixed)).toHaveLength(2);
  });
});

describe('a stage’s definition', () => {
  it('says all that follows from it: no round is measured in two stages, and what is undone lies ahead or is its own', () => {
    for (const kind of ['as-found', 'as-set', 'proved', 'recheck'] as const)
      expect(STAGES.filter(({ measures }) => measures === kind)).toEqual([stageMeasuring(kind)]);
    for (const { key, unticks } of STAGES)
      for (const other of unticks)
        expect(STAGE_KEYS.indexOf(other), `${key} unticks ${other}`).toBeGreaterThanOrEqual(
          STAGE_KEYS.indexOf(key),
        );
    expect(stageOf('set').unticks).toContain('close');
  });
});
