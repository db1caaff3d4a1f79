import { describe, expect, it } from 'vitest';
import {
  bareHeld,
  capsLoose,
  checkKey,
  disturbedBy,
  findingsNow,
  mayBeBare,
  nothingCounted,
  obstaclesTo,
  obstaclesToSignOff,
  provenBy,
  statusOf,
  type BuildState,
  type CheckState,
  wearLeft,
} from '../builds/index.ts';
import type { Pattern } from '../sheets/index.ts';
import type { WearLine } from '../wear/index.ts';
import { all, at, build, POINTS, reading, SCREWS, setting, shims } from './keptBuild.ts';

const tick = (
  stage: CheckState['stage'],
  check: string,
  minute: number,
  more: Partial<CheckState> = {},
): CheckState => ({
  ...{ stage, check, done: true, at: at(minute) },
  ...more,
});
const entry = (...lines: WearLine[]) => [{ id: 'w', by: 'x', at: at(1), lines }];
const found = { kind: 'as-found' as const, readings: all(5, 'tight') };

describe('what a point was found at', () => {
  const now = (pattern: Pattern, ...ticks: CheckState[]) =>
    findingsNow(build({ sheet: { pattern }, rounds: [found], ticks })).size;

  it('stops counting when what it rested on was taken apart, on every kind of engine', () => {
    expect(now(SCREWS)).toBe(POINTS.length);
    for (const check of ['rockers-A', 'cam-A', 'newcam-A', 'head-A'])
      expect(now(SCREWS, tick('set', check, 10)), check).toBe(0);
    expect(now(SCREWS, tick('set', 'rockers-A', 3))).toBe(POINTS.length);
    expect(now(SCREWS, tick('set', 'rockers-A', 10, { done: false }))).toBe(POINTS.length);
  });

  it('stands under a cam that only came out for the pieces, and not under another cam', () => {
    expect(now(shims('under-bucket'), tick('set', 'cam-A', 10))).toBe(POINTS.length);
    expect(now(shims('under-bucket'), tick('set', 'newcam-A', 10))).toBe(0);
  });
});

describe('what was found and left alone', () => {
  const sheet = { pattern: SCREWS, condition: 'cold' as const, temperature: { from: 10, to: 30 } };
  const said = (change: object = {}) => [
    { engineTempC: null, hoursSinceRun: null, condition: null, ...change },
  ];
  const check = (change: Partial<BuildState> = {}, conditions = said()) =>
    build({
      ...{ job: 'valve-check', stage: 'prove', sheet },
      rounds: [{ kind: 'as-found', readings: all(5), conditions }],
      ...change,
    });
  const proofs = (...given: Parameters<typeof check>) => [...provenBy(check(...given)).keys()];

  it('is proved by that in a check, without a tour; in a rebuild it is read again', () => {
    expect(proofs()).toEqual(POINTS);
    expect(obstaclesTo(statusOf(check()))).toEqual([]);
    expect(proofs({ job: 'rebuild' })).toEqual([]);
    expect(proofs({ job: 'fresh-head' })).toEqual([]);
    // a check in which more was found is a rebuild
    expect(obstaclesTo(statusOf(check({ job: 'rebuild' }))).map(({ code }) => code)).toContain(
      'points_unmeasured',
    );
  });

  it('is proved where it was in its band, as the sheet means it, and nothing bore on it since', () => {
    const [first, second] = POINTS as [string, string];
    const rest = POINTS.filter((point) => point !== first);
    const with1 = (change: object) => ({
      rounds: [
        {
          kind: 'as-found' as const,
          readings: all(5).map((row) => (row.point === first ? { ...row, ...change } : row)),
        },
      ],
    });
    for (const verdict of ['undecided', 'undecided-high', 'tight', 'loose', 'conflict'] as const)
      expect(proofs(with1({ verdict })), verdict).toEqual(rest);
    expect(proofs(with1({ offBase: true }))).toEqual(rest);
    expect(proofs({ settings: [setting(first, 8)] })).toEqual(rest);
    expect(proofs({ settings: [setting(first, 8)], provesAgain: 'every-point' })).toEqual([]);
    expect(proofs({ ticks: [tick('set', 'rockers-A', 8)] }).filter((point) => point === second)).toEqual([]);
    // read again, what was read last is what counts: before the two turns that proves nothing
    const again = { kind: 'proved' as const, readings: [reading(first, 20, 'tight')] };
    expect(proofs({ rounds: [...check().rounds, again], ticks: [] })).toEqual(rest);
  });

  it('is not proved where the engine was not as the sheet means it: a hot sheet wants a word that it was', () => {
    for (const change of [{ condition: 'hot' }, { hoursSinceRun: 2 }, { engineTempC: 44 }])
      expect(proofs({}, said(change)), JSON.stringify(change)).toEqual([]);
    expect(proofs({}, said({ condition: 'cold', engineTempC: 18, hoursSinceRun: 12 }))).toEqual(POINTS);
    const hot = { pattern: SCREWS, condition: 'hot' as const, temperature: null };
    expect(proofs({ sheet: hot })).toEqual([]);
    expect(proofs({ sheet: hot }, said({ condition: 'hot' }))).toEqual(POINTS);
    // of a sheet that does not say what its figures hold for, nothing stands
    expect(proofs({ sheet: { pattern: SCREWS } })).toEqual([]);
  });
});

describe('what is read at proving', () => {
  const proved = (turns: CheckState[], more: Partial<BuildState> = {}) =>
    provenBy(build({ rounds: [{ kind: 'proved', readings: all(30) }], ticks: turns, ...more })).size;
  const turns = (minute: number, more: Partial<CheckState> = {}) => tick('prove', 'two-turns', minute, more);

  it('counts only after the two turns', () => {
    expect(proved([])).toBe(0);
    expect(proved([turns(40)])).toBe(0);
    expect(proved([turns(20)])).toBe(POINTS.length);
    expect(proved([turns(20, { done: false })])).toBe(0);
    // ticked again later, what was read after the first ones stays proved
    expect(proved([turns(40, { earlier: [at(20)] })])).toBe(POINTS.length);
  });

  it('of a point that was changed counts after the turns that followed the change', () => {
    const changed = { settings: [setting('2E', 25)] };
    expect(proved([turns(20)], changed)).toBe(POINTS.length - 1);
    expect(proved([turns(28, { earlier: [at(20)] })], changed)).toBe(POINTS.length);
  });

  it('stays proved where it is signed, as it was then', () => {
    expect(proved([turns(40)], { signOff: {} })).toBe(POINTS.length);
  });
});

describe('a screw’s reading after locking', () => {
  const kept = (more: Partial<BuildState> = {}, lo = 0.15) =>
    provenBy(
      build({
        ...{ lockedStands: true, settings: [setting('2Ia', 10)], ticks: [tick('prove', 'two-turns', 20)] },
        rounds: [
          {
            kind: 'as-set',
            readings: [{ ...reading('2Ia', 12, 'in-spec'), lo, limits: { min: 0.1 } } as never],
          },
        ],
        ...more,
      }),
    ).has('2Ia');

  it('stands where the shop lets it, clear of the least, and two turns follow', () => {
    expect(kept()).toBe(true);
    expect(kept({ lockedStands: false })).toBe(false);
    expect(kept({}, 0.1038)).toBe(false);
    expect(kept({ ticks: [tick('prove', 'two-turns', 11)] })).toBe(false);
    expect(kept({ ticks: [tick('prove', 'two-turns', 20), tick('set', 'rockers-A', 5)] })).toBe(false);
    expect(kept({ settings: [setting('2Ia', 15)] })).toBe(false);
  });

  it('never stands of a nut, a piece, or where nothing was set', () => {
    const nut = { ...SCREWS, means: { ...SCREWS.means, kind: 'pivot-nut' } as Pattern['means'] };
    expect(kept({ sheet: { pattern: nut } })).toBe(false);
    expect(kept({ sheet: { pattern: shims('on-bucket') } })).toBe(false);
    expect(kept({ settings: [] })).toBe(false);
    // over a bridge it is read after the turns too
    const readings = [{ ...reading('2E', 12, 'in-spec'), lo: 0.15, limits: { min: 0.1 } } as never];
    const rounds = [{ kind: 'as-set' as const, readings }];
    const ticks = [tick('prove', 'two-turns', 20)];
    expect(provenBy(build({ lockedStands: true, settings: [setting('2E', 10)], ticks, rounds })).size).toBe(
      0,
    );
  });
});

describe('a cam that was out', () => {
  const torques = [
    { fastening: 'Cam caps', steps: '8 Nm, then 14 Nm' },
    { fastening: 'Cover bolts', steps: '9 Nm' },
  ];
  const assembly = [
    { text: 'Cams in to their marks', hold: true },
    { text: 'Wipe it', hold: false },
  ];
  const with_ = (...ticks: CheckState[]) =>
    build({
      sheet: { pattern: shims('under-bucket'), torques, assembly },
      settings: [setting('2E', 10, 'fitted')],
      ticks,
    });

  it('has its caps tightened and its steps done before anything is turned, whoever ticked the first of them', () => {
    expect(capsLoose(with_())).toEqual(['Cam caps, pass 1 of 2 (8 Nm)', 'Cam caps, pass 2 of 2 (14 Nm)']);
    const codes = obstaclesTo(statusOf(with_())).map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['caps_open', 'assembly_open']));
    const done = ['pass 0.0', 'pass 0.1', 'step 0'].map((check) => tick('set', check, 12));
    expect(capsLoose(with_(...done))).toEqual([]);
    expect(obstaclesTo(statusOf(with_(...done))).map(({ code }) => code)).not.toContain('assembly_open');
    // tightened before it came out again is not tightened
    expect(capsLoose(with_(...done.map((each) => ({ ...each, at: at(9) }))))).toHaveLength(2);
    expect(capsLoose(build({ sheet: { pattern: SCREWS, torques } }))).toEqual([]);
  });
});

describe('what is broken or worn out', () => {
  const cracked: WearLine = {
    kind: 'mark',
    part: 'rocker',
    place: '3E',
    damage: 'cracked',
    note: '',
    gone: false,
  };
  const decided = (order: 'to-order' | 'fitted'): WearLine => ({
    ...{ kind: 'fate', part: 'rocker', place: '3E', fate: 'replace', order, reason: '' },
  });

  it('stands against going on until somebody decides, and a new part until it is measured', () => {
    expect(wearLeft(build({ wear: entry(cracked) })).undecided).toEqual(['Rocker 3E: Cracked']);
    const status = statusOf(build({ stage: 'wear', wear: entry(cracked) }));
    // whichever stage it was seen at from there on; before it, going on to Wear is where it is decided
    for (const stage of ['wear', 'head-work', 'set', 'prove'] as const)
      expect(
        obstaclesTo({ ...status, stage }).map(({ code }) => code),
        stage,
      ).toContain('wear_undecided');
    expect(obstaclesTo({ ...status, stage: 'open-up' }).map(({ code }) => code)).not.toContain(
      'wear_undecided',
    );
    expect(obstaclesToSignOff(status).map(({ code }) => code)).toContain('wear_undecided');
    const fitted = build({ wear: entry(cracked, decided('fitted')) });
    expect(wearLeft(fitted)).toEqual({ undecided: [], newParts: ['Rocker 3E'] });
    expect(obstaclesToSignOff(statusOf(fitted)).map(({ code }) => code)).toContain('new_parts');
    expect(wearLeft(build({}))).toEqual({ undecided: [], newParts: [] });
  });
});

describe('a count', () => {
  it('is not ticked over nothing without a word', () => {
    const ticks = [tick('open-up', 'counted-out', 3)];
    const line = {
      id: 'l',
      by: 'x',
      at: at(2),
      lines: [{ name: 'Cap', place: '1', out: 2, dropped: false }],
    };
    expect(nothingCounted({ ledger: [], notes: [], ticks })).toBe(true);
    expect(nothingCounted({ ledger: [line as never], notes: [], ticks })).toBe(false);
    expect(nothingCounted({ ledger: [], notes: [{ stage: 'open-up', text: 'only the cover' }], ticks })).toBe(
      false,
    );
    expect(nothingCounted({ ledger: [], notes: [], ticks: [] })).toBe(false);
  });
});

describe('with nothing in', () => {
  const turnsBare = {
    ...shims('under-bucket'),
    means: { ...shims('under-bucket').means, turnsBare: true } as never,
  };

  it('only shims under buckets are measured, where the sheet says that the maker allows it', () => {
    expect(mayBeBare(turnsBare, 'intake')).toBe(true);
    for (const seat of ['on-bucket', 'under-bucket', 'under-finger'] as const)
      expect(mayBeBare(shims(seat), 'intake')).toBe(false);
  });

  it('the crank is held until it is accepted, and over a top shim whatever is accepted', () => {
    const bare = (pattern: Pattern, ...ticks: CheckState[]) =>
      bareHeld({ sheet: { pattern }, settings: [setting('2E', 5, 'bare')], ticks });
    expect(bare(turnsBare)).toEqual(['2E']);
    expect(bare(turnsBare, tick('set', checkKey('turned-bare'), 6))).toEqual([]);
    expect(bare(shims('on-bucket'), tick('set', checkKey('turned-bare'), 6))).toEqual(['2E']);
  });
});

describe('what a change disturbs', () => {
  it('is the neighbour under the same tool too, and the place a piece was taken from', () => {
    expect(disturbedBy(shims('on-bucket'), '2Ia')).toEqual(['2Ia', '2Ib']);
    expect(disturbedBy(SCREWS, '2Ia')).toEqual(['2Ia']);
    const moved = { ...setting('1E', 20, 'fitted'), giver: '3E' };
    const kept = provenBy(
      build({
        sheet: { pattern: shims('on-bucket') },
        ...{ rounds: [{ kind: 'proved', readings: all(10) }], settings: [moved] },
      }),
    );
    expect([kept.has('1E'), kept.has('3E'), kept.has('2E')]).toEqual([false, false, true]);
  });
});
