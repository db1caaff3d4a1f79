import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  asksPressures,
  buildInWords,
  checksAt,
  CLOSING,
  firstStage,
  jobOf,
  JOBS,
  largerJobs,
  RUNNING,
  stagesBefore,
  WHOLE_JOB,
  type Job,
  type JobKey,
  disturbances,
  circumstancesOf,
  measuredAt,
  roundsBegun,
  roundToRead,
  stagesOn,
  mayMove,
  obstaclesToMove,
  obstaclesToSignOff,
  PROVING,
  SETTING,
  STAGE_KEYS,
  stageOf,
  statusOf,
  undoneBy,
  type BuildState,
  type CheckState,
  type RoundState,
  type StageKey,
} from '../builds/index.ts';
import { whyNoProof, type Verdict } from '../measuring/index.ts';
import { at, POINTS, reading, SCREWS, shims } from './keptBuild.ts';

/** The points of its first cylinder. */
const OWN = POINTS.slice(0, 3);

const step = fc.oneof(
  { weight: 3, arbitrary: fc.record({ what: fc.constant('on' as const) }) },
  fc.record({
    what: fc.constant('back' as const),
    to: fc.constantFrom(SETTING, SETTING, PROVING, STAGE_KEYS[0]),
  }),
  { weight: 2, arbitrary: fc.record({ what: fc.constant('tick' as const) }) },
  { weight: 2, arbitrary: fc.record({ what: fc.constant('slacken' as const) }) },
  {
    weight: 3,
    arbitrary: fc.record({
      what: fc.constant('measure' as const),
      point: fc.nat(2),
      verdict: fc.constantFrom<Verdict>('in-spec', 'in-spec', 'in-spec', 'tight', 'undecided-high'),
      offBase: fc.integer({ min: 0, max: 5 }).map((chance) => chance === 0),
    }),
  },
  fc.record({ what: fc.constant('set' as const), point: fc.nat(2), left: fc.boolean() }),
);
type Step = typeof step extends fc.Arbitrary<infer One> ? One : never;

/** What may be slackened of an engine by itself: its rockers, or a cam. */
const slackenedIn = ({ sheet }: BuildState) => disturbances(sheet.pattern)[0]!.key;

const TICK: Step = { what: 'tick' };
const ON: Step = { what: 'on' };

/** An engine of three points, worked on by the rules of the stages alone: what a server keeps, minute by minute. */
class Bench {
  build: BuildState;
  #minute = 0;

  constructor(pattern: typeof SCREWS, job: JobKey = WHOLE_JOB) {
    this.build = {
      ...{ job, stage: firstStage(job) },
      sheet: {
        pattern: { ...pattern, cylinders: pattern.cylinders.slice(0, 1), firingOrder: '1' } as never,
        condition: 'cold',
      },
      ...{ ticks: [], rounds: [], settings: [], signOff: null },
    };
  }

  get #now(): string {
    this.#minute += 1;
    return at(this.#minute);
  }

  #tick(stage: StageKey, check: string, done: boolean): void {
    const old = this.build.ticks.find((each) => each.stage === stage && each.check === check);
    const earlier = [...(old?.earlier ?? []), ...(old?.done ? [old.at] : [])];
    const row: CheckState = { stage, check, done, at: this.#now, earlier };
    this.build = { ...this.build, ticks: [...this.build.ticks.filter((each) => each !== old), row] };
  }

  /** Goes as far as every point proved, with nothing out. */
  reachProved(): this {
    const measured = OWN.map((_, point) => point).map((point): Step => ({
      what: 'measure',
      point,
      verdict: 'in-spec',
      offBase: false,
    }));
    for (const _ of stagesBefore(this.build.job, PROVING))
      for (const next of [TICK, ...measured, ON]) this.take(next);
    for (const next of [TICK, ...measured]) this.take(next);
    return this;
  }

  take(next: Step): void {
    const { stage } = this.build;
    const here = stageOf(stage);
    if (next.what === 'tick') for (const { key } of here.checks) this.#tick(stage, key, true);
    if (next.what === 'slacken' && here.sets) this.#tick(SETTING, slackenedIn(this.build), true);
    if (next.what === 'measure' && here.measures) this.#measure(next);
    if (next.what === 'set' && here.sets) {
      const point = OWN[next.point]!;
      const row = { point, kind: next.left ? ('left' as const) : ('turned' as const), at: this.#now };
      const rest = this.build.settings.filter(
        (each) => each.point !== point || (each.kind === 'left') !== next.left,
      );
      this.build = { ...this.build, settings: [...rest, row] };
    }
    if (next.what === 'on') this.#go(stagesOn(statusOf(this.build)).at(-1) ?? stage);
    if (next.what === 'back') this.#go(next.to);
  }

  #measure({ point, verdict, offBase }: Extract<Step, { what: 'measure' }>): void {
    const into = roundToRead(this.build, this.build.stage, OWN[point]!);
    const round = this.build.rounds.findLast(({ kind }) => kind === into?.kind);
    if (!round || measuredAt(this.build.job, round.kind) !== this.build.stage) return;
    const taken = reading(OWN[point]!, 0, verdict, { offBase, takenAt: this.#now });
    const readings = [...round.readings.filter((each) => each.point !== taken.point), taken];
    this.build = {
      ...this.build,
      rounds: this.build.rounds.map((each) => (each === round ? { ...round, readings } : each)),
    };
  }

  #go(to: StageKey): void {
    const { build } = this;
    const on = stagesOn(statusOf(build));
    if (to === STAGE_KEYS.at(-1) || !(mayMove(build.job, build.stage, to) || on.includes(to))) return;
    if (obstaclesToMove(statusOf(build), to).length > 0) return;
    for (const stage of on.includes(to) ? on.slice(0, on.indexOf(to) + 1) : [to]) this.#enter(stage);
  }

  #enter(to: StageKey): void {
    for (const { stage, check } of undoneBy(this.build, to)) this.#tick(stage, check, false);
    const there = (kind: RoundState['kind']) => this.build.rounds.some((round) => round.kind === kind);
    const begun = roundsBegun(this.build.job, to).filter(
      ({ kind, begins }) => begins === 'each-time' || !there(kind),
    );
    const { ends } = stageOf(to);
    const rounds = this.build.rounds.map((round) =>
      begun.length > 0 && ends.includes(round.kind) ? { ...round, closedAt: at(this.#minute) } : round,
    );
    this.build = {
      ...this.build,
      rounds: [...rounds, ...begun.map(({ kind }) => ({ kind, readings: [] }))],
      stage: to,
    };
  }
}

/** One more job than there are: it is a row of the table, and nothing else. */
const SIXTH = {
  ...{ key: 'proof-alone', title: 'Proof alone', about: 'Somebody else set it.' },
  ...{ stages: ['take-in', 'prove', 'close', 'run-in'], without: ['take-in:clean'] },
  ...{ findsAt: null, strips: false, tightensHead: false, words: {}, onlyOnce: {}, says: {}, saysHot: {} },
  ...{ complaint: 'optional', pressures: 'with-a-complaint', foundProves: false, opened: 'by-hand' },
} as unknown as Job;
(JOBS as Job[]).push(SIXTH);
const job = fc.constantFrom(...JOBS.map(({ key }) => key));

describe('any job', () => {
  it('begins at its first stage, has an end at which it runs, and asks nothing that its stages have not', () => {
    for (const { key, stages, without, onlyOnce, says, saysHot, findsAt, opened } of JOBS) {
      expect(firstStage(key)).toBe(stages[0]);
      expect(stages.at(-1)).toBe(RUNNING);
      // what an engine in service is looked at for was set, proved and closed by somebody else
      const needed = opened === 'last-checked' ? [] : [SETTING, PROVING, CLOSING];
      for (const named of needed.slice(key === SIXTH.key ? 1 : 0)) expect(stages, key).toContain(named);
      expect(stages.map((stage) => STAGE_KEYS.indexOf(stage))).toEqual(
        stages.map((stage) => STAGE_KEYS.indexOf(stage)).toSorted((a, b) => a - b),
      );
      const asked = stages.flatMap((stage) => stageOf(stage).checks.map((check) => `${stage}:${check.key}`));
      for (const check of [
        ...without,
        ...Object.keys(onlyOnce),
        ...Object.keys(says),
        ...Object.keys(saysHot),
      ])
        expect(asked, key).toContain(check);
      if (findsAt !== null) expect(stages, key).toContain(findsAt);
      expect(stages.reduce((sum, stage) => sum + checksAt(key, stage).length, 0)).toBe(
        asked.length - without.length,
      );
      // the two turns and the cover are never left out, and everything is counted in, or said to be back with the cover
      expect(without.filter((check) => /two-turns|prove:marks|cover|cold|isolated/.test(check))).toEqual([]);
      if (without.includes('close:counted-in')) expect(says['close:cover'], key).toMatch(/^Everything back/);
      const untouched = { touched: false, camOut: false, hot: false };
      if (needed.length === 0) continue;
      expect(checksAt(key, PROVING, untouched).length, key).toBe(
        onlyOnce['prove:two-turns'] ? 0 : onlyOnce['prove:tensioner'] ? 2 : 3,
      );
    }
    expect(checksAt(SIXTH.key, 'take-in').map(({ key }) => key)).toEqual(['cold', 'isolated']);
  });

  it('becomes a larger one only, which has every stage of it', () => {
    expect(largerJobs('valve-check').map(({ key }) => key)).toEqual(['rebuild']);
    expect(largerJobs('rebuild')).toEqual([]);
    // what was only written down is no work that could grow
    expect(largerJobs('in-service')).toEqual([]);
    expect(largerJobs('set-again').map(({ key }) => key)).toEqual([
      ...['rebuild', 'valve-check', 'first-check', 'fresh-head'],
    ]);
    for (const { key, stages } of JOBS)
      for (const larger of largerJobs(key)) {
        expect(larger.stages.length).toBeGreaterThan(stages.length);
        expect(stages.every((stage) => larger.stages.includes(stage))).toBe(true);
      }
  });

  it('is said with what the engine is here for, where somebody said that', () => {
    expect(buildInWords({ job: 'valve-check', complaint: '' })).toBe('Valve check');
    const asked = (job: JobKey, complaint: string) => asksPressures({ job, complaint });
    expect([asked('valve-check', ''), asked('valve-check', 'weak'), asked('rebuild', '')]).toEqual([
      ...[false, true, true],
    ]);
    expect(buildInWords({ job: SIXTH.key, complaint: 'ticks' })).toBe('Proof alone: ticks');
  });
});

describe('any way a build may be gone', () => {
  it.each([
    ['screws', SCREWS],
    ['shims under its buckets', shims('under-bucket')],
  ])(
    'of an engine with %s skips no stage, leaves nothing ticked that was undone, and signs nothing unproved',
    (_, pattern) => {
      let signable = 0;
      const walked = new Set<JobKey>();
      fc.assert(
        fc.property(job, fc.array(step, { minLength: 5, maxLength: 40 }), (of, steps) => {
          const bench = new Bench(pattern, of).reachProved();
          walked.add(of);
          for (const next of steps) {
            const before = bench.build;
            bench.take(next);
            const { build } = bench;
            expect(jobOf(of).stages).toContain(build.stage);
            if (build.stage !== before.stage) {
              const on = stagesOn(statusOf(before)).includes(build.stage);
              expect(on || STAGE_KEYS.indexOf(build.stage) < STAGE_KEYS.indexOf(before.stage)).toBe(true);
              if (!on)
                for (const stage of stageOf(build.stage).unticks)
                  expect(build.ticks.filter((tick) => tick.stage === stage && tick.done)).toEqual([]);
            }
            if (build.stage !== CLOSING || obstaclesToSignOff(statusOf(build)).length > 0) continue;
            signable += 1;
            holds(build, jobOf(of).foundProves);
          }
        }),
        { numRuns: 400, seed: 11 },
      );
      expect(signable).toBeGreaterThan(20);
      expect(walked.size).toBe(JOBS.length);
    },
  );

  /** What a build that may be signed has, whatever was done on the way. */
  function holds(build: BuildState, foundProves: boolean): void {
    const { rounds, settings, ticks, sheet } = build;
    const slackened = slackenedIn(build);
    const cam = sheet.pattern.means.kind === 'shim';
    const loosened = ticks.find(({ check, done }) => done && check === slackened);
    const changes = settings.filter(({ kind }) => kind !== 'left');
    const proved = rounds.filter(({ kind }) => kind === 'proved').flatMap(({ readings }) => readings);
    for (const point of OWN) {
      // what bears on a point: its own change, its neighbour's where a cam came out for it, what was slackened
      const bears = [
        ...changes.filter((each) => cam || each.point === point),
        ...(loosened ? [loosened] : []),
      ];
      const since = bears.reduce((last, each) => Math.max(last, Date.parse(each.at)), -Infinity);
      const sound = proved.filter(
        (row) => row.point === point && !whyNoProof(row, null) && Date.parse(row.takenAt) > since,
      );
      const found = rounds
        .filter(({ kind }) => kind === 'as-found')
        .flatMap(({ readings }) => readings.filter((row) => row.point === point && !whyNoProof(row, null)));
      const proof = sound.at(-1) ?? (foundProves && bears.length === 0 ? found.at(-1) : undefined);
      expect(proof?.verdict, point).toBe('in-spec');
    }
    const turned = ticks.filter(({ stage, done }) => stage === PROVING && done).map(({ check }) => check);
    const asked = checksAt(build.job, PROVING, circumstancesOf(build)).map(({ key }) => key);
    expect(turned).toEqual(expect.arrayContaining(asked));
    if (changes.length > 0 || loosened) expect(asked).toContain('two-turns');
  }
});
