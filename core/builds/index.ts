export {
  goesOn,
  isUndecided,
  mayMove,
  obstaclesTo,
  obstaclesToSignOff,
  type BuildStanding,
  type Obstacle,
} from './stageMove.ts';
export { STAGE_KEYS, STAGES, stageOf, type Stage, type StageCheck, type StageKey } from './stages.ts';
export {
  newestRound,
  pointsSet,
  roundToSetBy,
  standingOf,
  type KeptBuild,
  type KeptRound,
} from './standing.ts';
