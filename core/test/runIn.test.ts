import { describe, expect, it } from 'vitest';
import {
  addedTo,
  assemblyDone,
  checkKey,
  hasCheck,
  heatCyclesOf,
  NO_RUN_IN,
  obstaclesTo,
  obstaclesToSignOff,
  provenBy,
  runInLeft,
  statusOf,
  undoneBy,
} from '../builds/index.ts';
import { expectedParts, fasteningsOf, type LedgerLine } from '../parts/index.ts';
import { all, at, build, SCREWS, setting, shims } from './keptBuild.ts';

const ASKS = { heatCycles: 2, retorque: true };
const heat = (number: number, minute: number, done = true) => ({
  ...{ stage: 'close' as const, check: checkKey('heat-cycle', number), done, at: at(minute) },
});
const torqued = (minute: number) => ({
  ...{ stage: 'set' as const, check: 'head-A', done: true, at: at(minute) },
});

describe('heat cycles', () => {
  it('are those the sheet asks for, and no others', () => {
    expect(heatCyclesOf(ASKS)).toEqual(['heat 1', 'heat 2']);
    expect(heatCyclesOf(NO_RUN_IN)).toEqual([]);
    const says = (check: string, runIn = ASKS) => hasCheck('close', check, SCREWS, { runIn });
    expect([says('heat 1'), says('heat 2'), says('heat 3'), says('heat 0')]).toEqual([
      ...[true, true, false, false],
    ]);
    expect(says('heat 1', NO_RUN_IN)).toBe(false);
    expect(hasCheck('prove', 'heat 1', SCREWS, { runIn: ASKS })).toBe(false);
  });

  it('come before the head is tightened again: one that was tightened earlier is tightened once more', () => {
    const left = (...ticks: Parameters<typeof runInLeft>[2]) => runInLeft(ASKS, ['A'], ticks);
    expect(left()).toEqual({ cycles: 2, heads: [] });
    expect(left(heat(1, 1), heat(2, 2, false))).toEqual({ cycles: 1, heads: [] });
    expect(left(torqued(1), heat(1, 2), heat(2, 3))).toEqual({ cycles: 0, heads: ['A'] });
    expect(left(heat(1, 2), heat(2, 3), torqued(4))).toEqual({ cycles: 0, heads: [] });
    expect(runInLeft({ ...ASKS, retorque: false }, ['A'], [heat(1, 1), heat(2, 2)]).heads).toEqual([]);
    expect(runInLeft(ASKS, ['A', 'B'], [heat(1, 1), heat(2, 2), torqued(3)]).heads).toEqual(['B']);
  });

  it('hold the sign-off, and stay done when the build goes back', () => {
    const codes = (ticks: readonly ReturnType<typeof heat | typeof torqued>[]) =>
      obstaclesToSignOff(
        statusOf(
          build({
            stage: 'close',
            sheet: { pattern: SCREWS, runIn: ASKS },
            ticks: [...build({}).ticks, ...ticks],
            rounds: [{ kind: 'proved', readings: all(50) }],
          }),
        ),
      ).map(({ code }) => code);
    expect(codes([])).toEqual(['heat_cycles_open']);
    expect(codes([heat(1, 10), heat(2, 11)])).toEqual(['retorque_open']);
    expect(codes([heat(1, 10), heat(2, 11), torqued(12)])).toEqual([]);
    const kept = build({ stage: 'close', ticks: [...build({}).ticks, heat(1, 10)] });
    const undone = undoneBy(kept, 'set').map(({ check }) => check);
    expect(undone).toContain('first-start');
    expect(undone).not.toContain('heat 1');
  });

  it('make every gap stale once the head is tightened again', () => {
    const before = build({ rounds: [{ kind: 'proved', readings: all(20) }] });
    expect(provenBy(before).size).toBeGreaterThan(0);
    expect(provenBy({ ...before, ticks: [torqued(30)] }).size).toBe(0);
  });
});

describe('what was put together', () => {
  const steps = [
    { text: 'Cams by their marks', hold: true },
    { text: 'Caps by their arrows', hold: false },
  ];
  const step = (index: number, minute: number) => ({
    ...{ stage: 'set' as const, check: `step ${index}`, done: true, at: at(minute) },
  });

  it('is not together any more once a cam comes out again, be it for a piece under it', () => {
    const on = (pattern: typeof SCREWS, ...[settings, extra]: [Parameters<typeof setting>[], string?]) =>
      [
        ...assemblyDone({
          sheet: { pattern, assembly: steps },
          ticks: [step(0, 10), step(1, 20), ...(extra ? [{ ...step(0, 15), check: extra }] : [])],
          settings: settings.map((one) => setting(...one)),
        }),
      ].sort();
    const under = shims('under-bucket');
    expect(on(under, [])).toEqual(['step 0', 'step 1']);
    expect(on(under, [['1Ia', 15, 'fitted']])).toEqual(['step 1']);
    expect(on(under, [['1Ia', 25, 'fitted']])).toEqual([]);
    // left alone, nothing came out; a screw takes nothing out either
    expect(on(under, [['1Ia', 25, 'left']])).toEqual(['step 0', 'step 1']);
    expect(on(SCREWS, [['1Ia', 25]])).toEqual(['step 0', 'step 1']);
    expect(on(SCREWS, [], 'rockers-A')).toEqual(['step 1']);
    expect(on(SCREWS, [], 'head-A')).toEqual(['step 0', 'step 1']);
  });

  it('is looked at again before the engine is turned', () => {
    const kept = build({
      sheet: { pattern: shims('under-bucket'), assembly: steps },
      ticks: [step(0, 10), step(1, 30)],
      settings: [setting('1Ia', 20, 'fitted')],
    });
    expect(obstaclesTo(statusOf(kept)).find(({ code }) => code === 'assembly_open')?.text).toContain(
      'Cams by their marks',
    );
    expect(
      obstaclesTo(statusOf({ ...kept, ticks: [step(0, 25), step(1, 30)] })).map(({ code }) => code),
    ).not.toContain('assembly_open');
  });
});

describe('a sign-off', () => {
  it('is added to by what is written where it was signed, after it', () => {
    const note = (stage: 'close' | 'run-in', minute: number) => ({ stage, at: at(minute) });
    const notes = [note('close', 5), note('close', 15), note('run-in', 20)];
    expect(addedTo({ at: at(10) }, notes)).toEqual([note('close', 15)]);
  });
});

describe('fastenings', () => {
  it('are the bolts and washers of cover and caps that were counted out', () => {
    const line = (part: ReturnType<typeof expectedParts>[number], out: number | null): LedgerLine => ({
      ...part,
      ...{ way: 'unsaid', out, in: null, note: '', dropped: false },
    });
    const ledger = expectedParts(shims('under-bucket')).map((part) =>
      line(part, part.name === 'Sealing washer' ? null : part.expected),
    );
    expect(fasteningsOf(ledger).map(({ name }) => name)).toEqual([
      ...['Cover bolt, short', 'Cover bolt, long', 'Cap bolt'],
    ]);
  });
});
