import { describe, expect, it } from 'vitest';
import {
  cautionsAt,
  checksAt,
  kindInLap,
  limitsOfStage,
  mayAccept,
  notMeasured,
  obstaclesTo,
  obstaclesToSignOff,
  pointsSet,
  provenBy,
  roundToRead,
  setAtItsStop,
  stagesOn,
  statusOf,
  unreachedPoints,
  type BuildState,
  type JobKey,
  type RoundState,
} from '../builds/index.ts';
import { adviseSetting } from '../setting/index.ts';
import type { Pattern } from '../sheets/index.ts';
import { all, at, build, POINTS, reading, SCREWS, setting, shims } from './keptBuild.ts';

const [ONE, TWO, THREE] = POINTS as [string, string, string];
const READY = { coldHours: null, hotMinutes: null, barred: false, doorsMinutes: null, access: [] };
const COLD = { pattern: SCREWS, condition: 'cold' } as const;
const found = (readings: RoundState['readings'], closedAt: string | null = null) => ({
  ...{ kind: 'as-found' as const, readings, closedAt },
});
const set = (readings: RoundState['readings'] = []) => ({
  kind: 'as-set' as const,
  readings,
  closedAt: null,
});
const check = (change: Partial<BuildState>): BuildState =>
  build({ job: 'valve-check', stage: 'set', sheet: COLD, ...change });

describe('a lap of finding and setting', () => {
  it('reads what nobody touched as found, and the rest as set', () => {
    const rounds = [found([reading(ONE, 1, 'tight')]), set()];
    const turned = check({ rounds, settings: [setting(ONE, 2), setting(THREE, 2, 'left')] });
    const into = (view: typeof turned, point: string) => roundToRead({ ...view, rounds }, 'set', point)?.kind;
    expect(POINTS.slice(0, 3).map((point) => into(turned, point))).toEqual([
      'as-set',
      'as-found',
      'as-found',
    ]);
    // what lay under something that was off is not found any more, whoever touched it
    const ticks = [{ stage: 'set' as const, check: 'rockers-A', done: true, at: at(3) }];
    expect(kindInLap({ ...turned, ticks }, TWO)).toBe('as-set');
    // once it is proved, how it was found is closed: it is read as set from then on
    const later = [found([reading(ONE, 1, 'in-spec')], at(9)), set()];
    expect(roundToRead({ ...check({ settings: [] }), rounds: later }, 'set', TWO)?.kind).toBe('as-set');
    // a rebuild has a stage of its own for each
    expect(roundToRead({ ...build({ job: 'rebuild' }), rounds }, 'set', TWO)?.kind).toBe('as-set');
  });

  it('holds each point by what its reading is: what is left alone, or what it is set to', () => {
    const view = check({ settings: [setting(ONE, 2)] });
    const of = limitsOfStage(view, 'set', 'as-set') as (point: string) => string;
    expect([of(ONE), of(TWO)]).toEqual(['as-set', 'as-found']);
    expect(limitsOfStage(build({}), 'set', 'as-found')).toBe('as-set');
    expect(limitsOfStage(build({}), 'prove', 'proved')).toBe('proved');
  });

  it('is gone on from when every point was felt, and what is out is set', () => {
    const codes = (view: BuildState) => obstaclesTo(statusOf(view)).map(({ code }) => code);
    const [first, ...rest] = all(1);
    expect(codes(check({ rounds: [found(rest), set()] }))).toEqual(['points_unmeasured']);
    expect(codes(check({ rounds: [found([{ ...first!, verdict: 'tight' }, ...rest]), set()] }))).toEqual([
      'points_unset',
    ]);
    expect(codes(check({ rounds: [found(all(1)), set()] }))).toEqual([]);
  });

  it('goes past proving only where nothing at all was touched, and what was found proves it', () => {
    const on = (change: Partial<BuildState>) => stagesOn(statusOf(check({ ticks: [], ...change })));
    expect(on({ rounds: [found(all(1)), set()] })).toEqual(['prove', 'close']);
    // turned, though it is in its band now
    expect(
      on({ rounds: [found(all(1)), set([reading(ONE, 3, 'in-spec')])], settings: [setting(ONE, 2)] }),
    ).toEqual(['prove']);
    // taken warm on a sheet that is cold, found proves nothing
    const warm = {
      ...found(all(1)),
      conditions: [{ engineTempC: 60, hoursSinceRun: 0, condition: 'hot' as const }],
    };
    expect(on({ rounds: [warm, set()] })).toEqual(['prove']);
    expect(stagesOn(statusOf(build({ rounds: [found(all(1)), set()] })))).toEqual(['prove']);
  });

  it('asks for two turns only once something was touched, and for the marks once a cam was out', () => {
    const keys = (touched: boolean, camOut: boolean) =>
      checksAt('valve-check', 'prove', { touched, camOut, hot: false }).map(({ key }) => key);
    expect([keys(false, false), keys(true, false), keys(true, true)]).toEqual([
      [],
      ['two-turns'],
      ['tensioner', 'two-turns', 'marks'],
    ]);
    // gears have no tensioner, and what is not barred over has no turning gear
    const of = (pattern: Pattern) => ({ touched: true, camOut: true, hot: false, pattern });
    const asked = (stage: 'prove' | 'close', pattern: Pattern) =>
      checksAt('rebuild', stage, of(pattern)).map(({ key }) => key);
    expect(asked('prove', { ...SCREWS, camDrive: 'gears' })).not.toContain('tensioner');
    expect(asked('close', SCREWS)).not.toContain('turning-gear');
    // what has no spark is stopped by its air, which is in hand before it is started
    expect(asked('close', SCREWS)).not.toContain('air-shut-off');
    const noSpark = { ...READY, barred: false, noSpark: true };
    expect(asked('close', { ...SCREWS, readiness: noSpark }).slice(-2)).toEqual([
      'air-shut-off',
      'first-start',
    ]);
    expect(
      checksAt('valve-check', 'close', of({ ...SCREWS, readiness: noSpark })).map(({ key }) => key),
    ).toContain('air-shut-off');
    const large = { ...READY, barred: true, doorsMinutes: 20 };
    expect(asked('close', { ...SCREWS, readiness: large })).toContain('turning-gear');
    expect(cautionsAt('take-in', { ...SCREWS, readiness: large }).join()).toContain('shut for 20 minutes');
    expect(cautionsAt('prove', SCREWS).join()).not.toContain('Barred over');
    expect(checksAt('rebuild', 'prove', { touched: false, camOut: false, hot: false })).toHaveLength(2);
    // a hot sheet is not asked to be cold, whatever is found by it; what has nothing to find stands cold
    const first = (job: JobKey, hot: boolean) =>
      checksAt(job, 'take-in', { touched: false, camOut: false, hot })[0]!.text;
    expect(first('valve-check', true)).toMatch(/^Run until it is as warm as the sheet says/);
    expect(first('rebuild', true)).toBe(first('valve-check', true));
    expect([first('valve-check', false), first('fresh-head', true)]).toEqual(['Engine cold', 'Engine cold']);
    expect(checksAt('valve-check', 'close').map(({ text }) => text)[0]).toMatch(/^Everything back/);
  });

  it('takes nothing that was read after a neighbour was touched for how it was found', () => {
    const pattern = { ...shims('on-bucket'), valves: { intake: 2, exhaust: 2 } };
    const twins = {
      rounds: [found([reading('1Ib', 5, 'in-spec')]), set()],
      settings: [setting('1Ia', 3, 'fitted')],
    };
    const view = check({ sheet: { pattern, condition: 'cold' }, ...twins });
    expect(provenBy(view).has('1Ib')).toBe(false);
    expect(provenBy({ ...view, settings: [] }).has('1Ib')).toBe(true);
  });

  it('sets what holds nothing but its own piece at its stop', () => {
    expect(setAtItsStop(SCREWS, 'intake')).toBe(true);
    expect(
      (['on-bucket', 'under-bucket', 'under-finger'] as const).map((seat) =>
        setAtItsStop(shims(seat), 'intake'),
      ),
    ).toEqual([true, false, false]);
  });
});

describe('a point that is not measured', () => {
  const left = (point: string, minute: number, cause: 'chosen' | 'unreached' | 'apart') => ({
    ...setting(point, minute, 'left'),
    cause,
  });

  it('because it cannot be reached is not waited for, until a lead has to let it stand', () => {
    const rest = all(1).slice(1);
    const rounds = [
      { kind: 'as-found' as const, readings: rest },
      { kind: 'proved' as const, readings: all(20).slice(1) },
    ];
    const settings = [left(ONE, 2, 'unreached')];
    const codes = (change: Partial<BuildState>) =>
      obstaclesTo(statusOf(build({ rounds, settings, ...change }))).map(({ code }) => code);
    expect(codes({ stage: 'as-found' })).toEqual([]);
    expect(codes({ stage: 'as-found', settings: [left(ONE, 2, 'chosen')] })).toEqual(['points_unmeasured']);
    expect(codes({ stage: 'prove' })).toEqual(['points_unreached']);
    const proofs = new Map(rest.map((row) => [row.point, row]));
    expect(mayAccept(ONE, { settings, rounds, proofs })).toBe(true);
    expect(mayAccept(ONE, { settings: [left(ONE, 2, 'apart')], rounds, proofs })).toBe(false);
    expect(mayAccept(ONE, { settings: [left(ONE, 2, 'chosen')], rounds, proofs })).toBe(false);
    const ticks = build({}).ticks.concat({
      stage: 'prove',
      check: `accepted ${ONE}`,
      done: true,
      at: at(30),
    });
    expect(codes({ stage: 'prove', ticks })).toEqual([]);
    // said before it was passed over, it lets nothing stand
    const early = ticks.map((tick) => (tick.check === `accepted ${ONE}` ? { ...tick, at: at(1) } : tick));
    expect(codes({ stage: 'prove', ticks: early })).toEqual(['points_unreached']);
    expect(pointsSet(build({ rounds, settings })).has(ONE)).toBe(false);
    // measured after all, it stands as measured
    expect(unreachedPoints({ rounds, settings })).toEqual([ONE]);
    const read = [...rounds, { kind: 'recheck' as const, readings: [reading(ONE, 40, 'tight')] }];
    expect(unreachedPoints({ rounds: read, settings })).toEqual([]);
    // nobody lets stand what is known to be tight, whenever it was read, nor what was set and never read
    const tight = [{ kind: 'as-found' as const, readings: [reading(ONE, 1, 'tight'), ...rest] }];
    expect(notMeasured({ rounds: tight, settings }).size).toBe(0);
    expect(mayAccept(ONE, { settings, rounds: tight, proofs })).toBe(false);
    expect(mayAccept(ONE, { settings: [setting(ONE, 1), ...settings], rounds, proofs })).toBe(false);
  });

  it('because it came apart has nothing to be found, and is proved as any other', () => {
    const settings = POINTS.slice(0, 2).map((point) => left(point, 2, 'apart'));
    const rounds = [{ kind: 'as-found' as const, readings: all(1).slice(2) }];
    expect(obstaclesTo(statusOf(build({ stage: 'as-found', rounds, settings })))).toEqual([]);
    const closing = obstaclesToSignOff(
      statusOf(
        build({
          stage: 'close',
          rounds: [...rounds, { kind: 'proved', readings: all(20).slice(2) }],
          settings,
        }),
      ),
    );
    expect(closing.map(({ code, points }) => [code, points])).toEqual([
      ['points_unmeasured', POINTS.slice(0, 2)],
    ]);
  });
});

describe('what came apart and is together again', () => {
  it('is read as set, and proved after two turns, in a check too', () => {
    const settings = [{ ...setting(ONE, 2, 'left'), cause: 'apart' as const }];
    const rest = all(1).slice(1);
    const view = check({ rounds: [found(rest), set([reading(ONE, 4, 'in-spec')])], settings, ticks: [] });
    expect(kindInLap(view, ONE)).toBe('as-set');
    expect(stagesOn(statusOf(view))).toEqual(['prove']);
    expect(provenBy(view).has(ONE)).toBe(false);
    expect(obstaclesTo(statusOf({ ...view, stage: 'prove' })).map(({ code }) => code)).toEqual([
      'checks_open',
      'points_unmeasured',
    ]);
    // even where its device took it for how it was found
    const other = { ...view, rounds: [found([reading(ONE, 4, 'in-spec'), ...rest]), set()] };
    expect(provenBy(other).has(ONE)).toBe(false);
  });
});

describe('a first check', () => {
  const sheet = { ...COLD, runIn: { heatCycles: 2, retorque: true } };
  const rounds = [found(all(1)), set()];
  const codes = (job: BuildState['job'], ticks = build({}).ticks) =>
    obstaclesTo(statusOf(check({ job, sheet, rounds, ticks }))).map(({ code }) => code);

  it('has the head tightened again where the sheet asks for it, once, and every gap read after it', () => {
    expect(codes('first-check')).toEqual(['head_open']);
    expect(codes('valve-check')).toEqual([]);
    const tightened = build({}).ticks.concat({ stage: 'set', check: 'head-A', done: true, at: at(5) });
    expect(codes('first-check', tightened)).toEqual(['points_unmeasured']);
    const again = check({
      job: 'first-check',
      sheet,
      rounds: [found(all(1)), set(all(6))],
      ticks: tightened,
    });
    expect(obstaclesTo(statusOf(again))).toEqual([]);
    expect(statusOf(again).runIn).toEqual({ cycles: 0, heads: [] });
  });
});

describe('a gap that nobody decided', () => {
  it('is set by a blade, and by no angle', () => {
    const advice = (lo: number, hi: number) =>
      adviseSetting({
        ...{ pattern: SCREWS, role: 'intake' as const, target: 2500, installed: null },
        limits: { min: 2100, max: 2900, allowOver: 0 },
        measured: { lo, hi, floor: true },
      });
    expect(advice(2800, 3000)).toEqual({ kind: 'by-blade', direction: 'tighten', undecided: true });
    expect(advice(3000, 3100)).toMatchObject({ kind: 'turn', turn: { direction: 'tighten' } });
  });
});
