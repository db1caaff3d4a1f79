import type { BuildStatus } from './buildStatus.ts';
import { CHECK_KINDS, type Holds } from './checkKinds.ts';
import {
  heldBare,
  leftBare,
  notCounted,
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
import { CLOSING, RUNNING, STAGE_KEYS, stageOf, type Demand, type StageKey } from './stages.ts';

/** What the kinds of checks say against going on where points are set, or against signing. */
const heldBy = (what: keyof Holds, status: BuildStatus): readonly Obstacle[] =>
  Object.values(CHECK_KINDS).flatMap(({ holds }) => holds?.[what]?.(status) ?? []);

/** What is missing of each thing that has to hold. */
const UNMET: Readonly<Record<Demand, (status: BuildStatus) => readonly Obstacle[]>> = {
  counted: notCounted,
  'wear-decided': undecidedWear,
  'all-found': notFound,
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
  const open = stage.checks.filter(({ key }) => !status.ticked.has(`${stage.key}:${key}`));
  const text = `Tick off first: ${open.map((check) => check.text.toLowerCase()).join('; ')}.`;
  return [
    ...crankHeldBy(status),
    ...(open.length > 0 ? [{ code: 'checks_open' as const, text, points: [] }] : []),
    ...stage.demands.flatMap((demand) => UNMET[demand](status)),
  ];
}

/**
 * Lists what stands against a move that may be made, see `mayMove`: of one stage on everything that is open there, of a step back
 * only a tool that holds a valve down.
 *
 * @example obstaclesToMove(statusOf(build), 'take-in').length // 0
 */
export const obstaclesToMove = (status: BuildStatus, to: StageKey): readonly Obstacle[] =>
  goesOn(status.stage, to) ? obstaclesTo(status) : toolIn(status);

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
 * Says whether a build may be moved from one stage to another: one on when nothing stands against it, or back to any
 * earlier stage until it is signed off.
 *
 * @example mayMove('as-found', 'set') // false: two stages would be skipped
 */
export function mayMove(from: StageKey, to: StageKey): boolean {
  return goesOn(from, to) || (STAGE_KEYS.indexOf(to) < STAGE_KEYS.indexOf(from) && from !== RUNNING);
}

/**
 * Says whether a move is one stage on, which needs the stage to be finished.
 *
 * @example goesOn('set', 'prove') // true
 */
export function goesOn(from: StageKey, to: StageKey): boolean {
  return STAGE_KEYS.indexOf(to) - STAGE_KEYS.indexOf(from) === 1;
}
