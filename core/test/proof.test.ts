import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cautionsAt,
  checkKey,
  findings,
  obstaclesTo,
  obstaclesToSignOff,
  STAGE_KEYS,
  stageMeasuring,
  stageOf,
  STAGES,
  statusOf,
  type BuildState,
  type SettingState,
} from '../builds/index.ts';
import { whyNoProof, type ReadingState } from '../measuring/index.ts';
import { type Pattern } from '../sheets/index.ts';
import { all, at, build, POINTS, reading, SCREWS, setting, shims } from './keptBuild.ts';

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
      expect(obstaclesTo(statusOf(build({ stage: 'open-up', ticks }))).map(({ code }) => code)).toEqual([
        'checks_open',
      ]);
    expect(obstaclesTo(statusOf(build({ stage: 'open-up' })))).toEqual([]);
  });
});

describe('what a point is set by', () => {
  const rounds: BuildState['rounds'] = [
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
    // their exhausts are bridged
    const ticks = ['1E', '2E'].map((point) => ({
      ...{ stage: 'set' as const, check: checkKey('bridge', point), done: true, at: at(19) },
    }));
    expect(obstaclesTo(statusOf(build({ ticks, rounds: rounds.slice(0, 1), settings: before })))).toEqual([]);
    expect(obstaclesTo(statusOf(build({ ticks, rounds, settings: before })))).toMatchObject([
      { code: 'points_unset', points: ['1E'] },
    ]);
    const after = [setting('1E', 50), setting('2E', 20)];
    expect(obstaclesTo(statusOf(build({ ticks, rounds, settings: after })))).toEqual([]);
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
  const closing = (readings: readonly ReadingState[], settings: readonly SettingState[] = []) =>
    obstaclesToSignOff(statusOf(build({ stage: 'close', rounds: [{ kind: 'proved', readings }], settings })));

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
        const settings = new Map<string, SettingState>();
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
