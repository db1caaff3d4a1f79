export { ACCEPTABLE, acceptance, acceptedPoints, mayAccept, pointAccepted } from './accepted.ts';
export {
  heatCycleAt,
  heatCyclesOf,
  isHeatCycle,
  NO_RUN_IN,
  runInLeft,
  type RunInLeft,
  type RunInSays,
} from './heatCycles.ts';
export { addedTo } from './added.ts';
export { assemblyDone, capsLoose, passesDone } from './assembled.ts';
export { nothingCounted, wearLeft, type WearLeft } from './decided.ts';
export { headsToTorque } from './disturbed.ts';
export { checkInWords, hasCheck, undoneBy } from './checks.ts';
export { bridgeAt, bridgedPoints, bridgeOf, bridgesOpen } from './bridges.ts';
export { LEDGER_EXPLAINED, partsExplained, partsOff, passesOpen } from './closing.ts';
export { bareHeld, heldDownToSet, mayBeBare, pointHeldDown, toolAt, toolsIn, TURNED_BARE } from './holds.ts';
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
