export { ACCEPTABLE, acceptedPoints, mayAccept } from './accepted.ts';
export { checkKey, subjectOf } from '../checks/index.ts';
export { heatCyclesOf, NO_RUN_IN, runInLeft, type RunInLeft, type RunInSays } from './heatCycles.ts';
export { addedTo } from './added.ts';
export { assemblyDone, capsLoose, passesDone } from './assembled.ts';
export { nothingCounted, wearLeft, type WearLeft } from './decided.ts';
export { headsToTorque } from './disturbed.ts';
export { checkInWords, hasCheck, onlyByLead, undoneBy } from './checks.ts';
export { bridgedPoints, bridgesOpen } from './bridges.ts';
export { partsExplained, partsOff, passesOpen } from './closing.ts';
export { bareHeld, heldDownToSet, mayBeBare, toolsIn } from './holds.ts';
export { judgedAnew } from './judgedAnew.ts';
export { lastChange, lastDone, pointsBare } from './lastChange.ts';
export { standingLines, type Entry, type Standing } from '../entries/index.ts';
export {
  camCapsOffAt,
  disturbances,
  disturbedBy,
  lastDisturbed,
  lastTakenApart,
  type Disturbance,
  type ProvesAgain,
} from './disturbed.ts';
export {
  goesOn,
  isUndecided,
  mayMove,
  obstaclesTo,
  obstaclesToSignOff,
  toolsLeftIn,
  type BuildStanding,
  type Obstacle,
} from './stageMove.ts';
export {
  cautionsAt,
  CLOSING,
  PROVING,
  RUNNING,
  SETTING,
  STAGE_KEYS,
  STAGES,
  stageMeasuring,
  stageOf,
  type RoundKind,
  type Stage,
  type StageCaution,
  type StageCheck,
  type StageKey,
} from './stages.ts';
export { countsFrom, NOT_YET, provenBy, provesFrom } from './proved.ts';
export {
  findings,
  findingsNow,
  newestRound,
  pointsSet,
  standingOf,
  type KeptBuild,
  type KeptRound,
  type KeptSetting,
  type KeptTick,
} from './standing.ts';
