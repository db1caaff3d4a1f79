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
export {
  disturbedBy,
  findings,
  lastChange,
  lastDisturbed,
  newestRound,
  pointsSet,
  provenBy,
  standingOf,
  type KeptBuild,
  type KeptRound,
  type KeptSetting,
} from './standing.ts';
