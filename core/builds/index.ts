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
  STAGE_KEYS,
  STAGES,
  stageMeasuring,
  stageOf,
  type RoundKind,
  type Stage,
  type StageCheck,
  type StageKey,
} from './stages.ts';
export {
  findings,
  lastChange,
  newestRound,
  pointsSet,
  standingOf,
  type KeptBuild,
  type KeptRound,
  type KeptSetting,
} from './standing.ts';
