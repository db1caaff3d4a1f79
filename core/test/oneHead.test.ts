import { describe, expect, it } from 'vitest';
import {
  hasCheck,
  obstaclesTo,
  roundsEnded,
  stagesOn,
  statusOf,
  unopenedHeads,
  untouchedHeads,
  type BuildState,
} from '../builds/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import { at, build, reading, SCREWS, setting } from './keptBuild.ts';
import { vTwelve } from './patterns.ts';

const V: Pattern = { ...vTwelve, means: SCREWS.means, roleMeans: {} };
const inBank = (bank: 'A' | 'B') =>
  lashPoints(V)
    .filter(({ cylinder }) => V.cylinders.find(({ id }) => id === cylinder)!.bank === bank)
    .map(({ key }) => key);
const [A, B] = [inBank('A'), inBank('B')];
const shut = (head: string, done = true) => ({
  ...{ stage: 'set' as const, check: `unopened ${head}`, done, at: at(0) },
});
const found = (points: readonly string[], minute = 1) => ({
  kind: 'as-found' as const,
  readings: points.map((point) => reading(point, minute, 'in-spec')),
});
const check = (change: Partial<BuildState> = {}): BuildState =>
  build({
    ...{ job: 'valve-check', stage: 'set', sheet: { pattern: V, condition: 'cold' } },
    ticks: [shut('B')],
    rounds: [found(A), { kind: 'as-set', readings: [] }],
    ...change,
  });
const codes = (view: BuildState) => obstaclesTo(statusOf(view)).map(({ code }) => code);
const heads = (view: BuildState) => unopenedHeads(view).map(({ head }) => head);

describe('one head at a time', () => {
  it('leaves the head that keeps its cover out of the lap, and stands against closing up', () => {
    expect(heads(check())).toEqual(['B']);
    // nothing touched: there is nothing to prove before the next head is opened
    expect(codes(check())).toEqual(['head_unopened']);
    const touched = check({ settings: [setting(A[0]!, 2)] });
    expect(codes(touched)).toEqual([]);
    expect(stagesOn(statusOf(touched))).toEqual(['prove']);
    const proved = check({
      ...{ stage: 'prove', settings: [setting(A[0]!, 2)] },
      rounds: [found(A), { kind: 'proved', readings: A.map((point) => reading(point, 9, 'in-spec')) }],
      ticks: [shut('B'), { stage: 'prove', check: 'two-turns', done: true, at: at(5) }],
    });
    expect(codes(proved)).toEqual(['head_unopened']);
    // what was found there still counts as found: its round stays open
    expect([roundsEnded(touched, 'prove'), roundsEnded(check({ ticks: [] }), 'prove')]).toEqual([
      ['as-set', 'proved'],
      ['as-found', 'as-set', 'proved'],
    ]);
    // opened, and found in its band, it is done
    const both = { ...proved, rounds: [found([...A, ...B]), ...proved.rounds.slice(1)] };
    expect([heads(both), codes(both)]).toEqual([[], []]);
  });

  it('is open as soon as anything of it is read or set, and never every one of them shut', () => {
    expect(heads(check({ ticks: [shut('A'), shut('B')], rounds: [] }))).toEqual([]);
    expect(heads(check({ rounds: [found([...A, B[0]!])] }))).toEqual([]);
    expect(heads(check({ settings: [setting(B[0]!, 2, 'left')] }))).toEqual([]);
    expect(heads(check({ ticks: [shut('B', false)] }))).toEqual([]);
    const struck = { ...reading(B[0]!, 1, 'in-spec'), reading: { kind: 'tries', tries: [] } };
    expect(heads(check({ rounds: [found(A), { kind: 'as-found', readings: [struck] }] }))).toEqual(['B']);
    // a recheck's finding that is carried over was read before
    expect(untouchedHeads(check({ rounds: [{ ...found(A), carried: true }] }))).toHaveLength(2);
  });

  it('is asked of nothing with one head, and of no job that takes both off', () => {
    expect(untouchedHeads(check({ sheet: { pattern: SCREWS }, rounds: [] }))).toEqual([]);
    expect(heads(check({ job: 'rebuild' }))).toEqual([]);
    expect([hasCheck('set', 'unopened B', V), hasCheck('set', 'unopened A', SCREWS)]).toEqual([true, false]);
    expect(codes(check({ ticks: [] }))).toEqual(['points_unmeasured']);
  });
});
