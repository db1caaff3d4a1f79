export { ACCEPTABLE, acceptedPoints, mayAccept } from './accepted.ts';
export { checkKey, subjectOf } from '../checks/index.ts';
export { heatCyclesOf, NO_RUN_IN, runInLeft, type RunInLeft } from './heatCycles.ts';
export { addedTo } from './added.ts';
export { assemblyDone, capsLoose, passesDone } from './assembled.ts';
export { nothingCounted, wearLeft, type WearLeft } from './decided.ts';
export { CAPS_OFF, headsToTorque, liesUnderCam } from './disturbed.ts';
export { checkInWords, hasCheck, onlyByLead, undoneBy } from './checks.ts';
export { balancedPoints, bridgedPoints, bridgesOpen } from './bridges.ts';
export { partsExplained, partsOff, passesOpen } from './closing.ts';
export { bareHeld, camsPositionOpen, heldDownToSet, mayBeBare, toolsIn } from './holds.ts';
export { heldAgainst, judgedAgain, pointsHeld } from './judgedAgain.ts';
export { roundsEnded, unopenedHeads, untouchedHeads } from './unopened.ts';
export { coldFrom, meantAt } from './meantAt.ts';
export { lastChange, lastDone, notMeasured, unreachedPoints, pointsBare } from './lastChange.ts';
export { currentLines, type Entry, type CurrentLine } from '../entries/index.ts';
export {
  AFTER_RECHECK,
  IN_SERVICE,
  asksPressures,
  buildInWords,
  jobAsked,
  JOB_KEYS,
  jobOf,
  type Circumstances,
  JOBS,
  largerJobs,
  WHOLE_JOB,
  type Job,
  type JobKey,
} from './jobs.ts';
export {
  checksAt,
  measuredAt,
  roundsBegun,
  setsAsFound,
  stageIn,
  firstStage,
  nextStage,
  stagesBefore,
} from './jobStages.ts';
export {
  camCapsOffAt,
  disturbances,
  setAtItsStop,
  disturbedBy,
  lastDisturbed,
  lastTakenApart,
  type Disturbance,
} from './disturbed.ts';
export {
  crankHeldBy,
  goesOn,
  mayMove,
  obstaclesTo,
  obstaclesToMove,
  stagesOn,
  obstaclesToSignOff,
} from './stageMove.ts';
export { isUndecided, type Obstacle } from './obstacles.ts';
export {
  cautionsAt,
  checkSaying,
  CLOSING,
  handlesCover,
  PROVING,
  ROUND_WORDS,
  type RoundKind,
  RUNNING,
  SETTING,
  type Stage,
  STAGE_KEYS,
  type StageCaution,
  type StageCheck,
  type StageKey,
  stageMeasuring,
  stageOf,
  STAGES,
} from './stages.ts';
export { countsFrom, NOT_YET, provenBy, provesFrom } from './proved.ts';
export { findings, findingsNow, newestRound, pointsSet } from './findings.ts';
export {
  leftToMeasure,
  nextToMeasure,
  nextUnmeasured,
  passedOver,
  pointStatus,
  readingAt,
  settledPoints,
  type BearingChange,
  type ChangeAt,
  type PointStatus,
} from './pointStatus.ts';
export { isOpenRound, kindInLap, limitsOfStage, roundOfStage, roundToRead } from './stageRound.ts';
export { circumstancesOf, statusOf, type BuildStatus } from './buildStatus.ts';
export type {
  BuildState,
  CheckState,
  ProvesAgain,
  RoundState,
  RunInSays,
  SettingState,
} from './buildState.ts';
