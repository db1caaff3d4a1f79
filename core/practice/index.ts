export { STAGE_KEYS, STAGES, stageOf, type Stage, type StageCheck, type StageKey } from './stages.ts';
export {
  goesOn,
  isUndecided,
  mayMove,
  obstaclesTo,
  obstaclesToSignOff,
  type BuildStanding,
  type Obstacle,
} from './stageMove.ts';
export {
  newestRound,
  pointsSet,
  roundToSetBy,
  standingOf,
  type KeptBuild,
  type KeptRound,
} from './standing.ts';
export { stopProgress, type StopProgress, type StopStanding } from './stopProgress.ts';
export { conditionCautions, type Conditions, type Meant } from './conditions.ts';
