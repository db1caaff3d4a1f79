import type { BuildStatus } from './buildStatus.ts';
import { CHECK_KINDS, type Holds } from './checkKinds.ts';
import {
  headToTighten,
  heldBare,
  leftBare,
  notCounted,
  notFelt,
  notFound,
  notSigned,
  toolIn,
  undecidedWear,
  unproved,
  unset,
  withoutFigures,
  withoutLimits,
  type Obstacle,
} from './obstacles.ts';
import { jobOf, type JobKey } from './jobs.ts';
import { checksAt, nextStage, setsAsFound, stagesBefore } from './jobStages.ts';
import { CLOSING, RUNNING, stageOf, type Demand, type StageKey } from './stages.ts';

/** What the kinds of checks say against going on where points are set, or against signing. */
const heldBy = (what: keyof Holds, status: BuildStatus): readonly Obstacle[] =>
  Object.values(CHECK_KINDS).flatMap(({ holds }) => holds?.[what]?.(status) ?? []);

/** What is missing of each thing that has to hold. */
const UNMET: Readonly<Record<Demand, (status: BuildStatus) => readonly Obstacle[]>> = {
  counted: notCounted,
  'wear-decided': undecidedWear,
  'all-found': notFound,
  'all-felt': (status) => (setsAsFound(status.job, status.stage) ? notFelt(status) : []),
  'head-tightened': headToTighten,
  'limits-known': withoutLimits,
  'all-set': (status) => [...leftBare(status), ...heldBy('setting', status), ...unset(status)],
  'all-proved': unproved,
  'signed-off': notSigned,
};

/**
 * Lists what still stands between a build and its next stage.
 *
 * @returns an empty list when the stage may be left
 * @example obstaclesTo(statusOf(build)).map((obstacle) => obstacle.text)
 */
export function obstaclesTo(status: BuildStatus): readonly Obstacle[] {
  const stage = stageOf(status.stage);
  const open = checksAt(status.job, status.stage, status.circumstances).filter(
    ({ key, answeredBy }) =>
      !status.ticked.has(`${stage.key}:${key}`) && !(answeredBy && status.answers[answeredBy]),
  );
  const text = `Tick off first: ${open.map((check) => check.text.toLowerCase()).join('; ')}.`;
  return [
    ...crankHeldBy(status),
    ...(open.length > 0 ? [{ code: 'checks_open' as const, text, points: [] }] : []),
    ...stage.demands.flatMap((demand) => UNMET[demand](status)),
    ...beforeSetting(status),
  ];
}

/** Nothing is set without limits: they stand against going on to where it is, unless that is where it is found too. */
function beforeSetting(status: BuildStatus): readonly Obstacle[] {
  const next = nextStage(status.job, status.stage);
  const sets = next !== undefined && stageOf(next).sets && !setsAsFound(status.job, next);
  return sets ? withoutLimits(status) : [];
}

/**
 * Lists what stands against a move that may be made, see `mayMove`: of one stage on everything that is open there, of a step back
 * only a tool that holds a valve down.
 *
 * @example obstaclesToMove(statusOf(build), 'take-in').length // 0
 */
export const obstaclesToMove = (status: BuildStatus, to: StageKey): readonly Obstacle[] =>
  stagesOn(status).includes(to) ? obstaclesTo(status) : toolIn(status);

/**
 * Lists the stages that a build goes on to: the next of its job; and where nobody touched anything, and what was found proves it, past
 * the one where it would be proved.
 *
 * Rule: only what was touched is proved.
 *
 * @example stagesOn(statusOf(build)) // ['prove', 'close'] in a valve check that found nothing out
 */
export function stagesOn(status: BuildStatus): readonly StageKey[] {
  const next = nextStage(status.job, status.stage);
  if (next === undefined) return [];
  const there = { ...status, stage: next };
  const passes =
    jobOf(status.job).foundProves &&
    stageOf(next).measures === 'proved' &&
    !status.circumstances.touched &&
    obstaclesTo(there).length === 0;
  return passes ? [next, ...stagesOn(there)] : [next];
}

/**
 * Says what stands against turning the crank: a tool that holds a valve down, and points with nothing in.
 *
 * @example crankHeldBy({ heldDown: ['3E'], bareHeld: [] })[0]?.code // 'tool_in'
 */
export const crankHeldBy = (status: Pick<BuildStatus, 'heldDown' | 'bareHeld'>): readonly Obstacle[] => [
  ...toolIn(status),
  ...heldBare(status),
];

/**
 * Lists what stands against signing off: every point proved and in spec, the stage's own checks, parts that are not back, what is
 * half tightened or half together, and what the sheet asks for before.
 *
 * @example obstaclesToSignOff(statusOf(build)).map(({ code }) => code)
 */
export function obstaclesToSignOff(status: BuildStatus): readonly Obstacle[] {
  return [
    ...obstaclesTo({ ...status, stage: CLOSING, signedOff: true }),
    ...heldBy('signing', status),
    ...withoutLimits(status),
    ...undecidedWear(status),
    ...withoutFigures(status),
    ...unproved(status),
  ];
}

/**
 * Says whether a build may be moved from one stage of its job to another: one on when nothing stands against it, or back to any
 * earlier one until it is signed off. See `stagesOn` for one that is passed.
 *
 * @example mayMove('rebuild', 'as-found', 'set') // false: two stages would be skipped
 */
export function mayMove(job: JobKey, from: StageKey, to: StageKey): boolean {
  return goesOn(job, from, to) || (from !== RUNNING && stagesBefore(job, from).includes(to));
}

/**
 * Says whether a move is one stage on in a job, which needs the stage to be finished.
 *
 * @example goesOn('valve-check', 'open-up', 'set') // true
 */
export const goesOn = (job: JobKey, from: StageKey, to: StageKey): boolean => nextStage(job, from) === to;
