export {
  adjusterAt,
  screwGain,
  screwTurn,
  turnInWords,
  type ScrewSide,
  type ScrewTurn,
  type ScrewTurnInput,
} from './screwTurn.ts';
export { fitPiece, type FitPiece, type FitPieceInput, type NoPiece } from './fitPiece.ts';
export {
  guardedBand,
  pieceOutcome,
  pieceWanted,
  type GapWithPiece,
  type PieceBand,
  type PieceOutcome,
  type PieceStatus,
} from './pieceOutcome.ts';
export { chartSays, readChart, writeChart, type MakersChart } from './makersChart.ts';
export { alreadyIn, type PieceIn } from './alreadyIn.ts';
export { markDiffers, readMark } from './readMark.ts';
export { pieceWarning, type PieceWarning } from './pieceWarning.ts';
export { roleChart, type RoleChart } from './roleChart.ts';
export { sizesOf } from './sizes.ts';
export { aimFor, type Aim, type OwnAim } from './target.ts';
export {
  aimsOutside,
  allowedBy,
  effectiveLimits,
  type AllowOver,
  type Departures,
  type EffectiveLimits,
} from './effectiveLimits.ts';
export {
  printedCold,
  provisionalComplaint,
  setColdInWords,
  type ColdFigure,
  type SetCold,
} from './setCold.ts';
export {
  adviseSetting,
  surelyThin,
  whatItLeaves,
  type PieceLeaves,
  type PointToSet,
  type SettingAdvice,
} from './advise.ts';
export {
  bareBand,
  bareFit,
  baselineShim,
  heldOpenBy,
  seatOffset,
  shimChart,
  sizeToMeasure,
  type BareFit,
  type BareFitInput,
  type BaselinePoint,
  type BaselineShim,
  type BaselineShimInput,
  type SeatOffsetInput,
  type ShimChart,
  type ShimChartInput,
} from './baselines.ts';
export {
  feelSpread,
  lockShift,
  type FeelSpread,
  type FeelSpreadInput,
  type LockShift,
  type LockShiftInput,
} from './feel.ts';
export { settingBlades, type SettingBlades, type SettingBladesInput } from './settingBlades.ts';
export { firstKnown, leftByPiece } from './leftBySetting.ts';
export { leastAssignment, type Cost } from './assignment.ts';
export {
  shimPlan,
  type PlanAssignment,
  type PlanChange,
  type PlanPoint,
  type ShimPlan,
  type ShimPlanInput,
} from './shimPlan.ts';
export { moveOrder, type OrderedMove, type PlannedMove } from './moveOrder.ts';
export { collectedPoints, isCollected, isInHand, type PieceChoice } from './collected.ts';
export {
  besideTheEngine,
  pieceFound,
  piecePoints,
  piecesWornOut,
  planQuestions,
  seatOffsetAt,
  type NotPlanned,
  type PiecePoint,
  type PlanChoices,
} from './planInput.ts';
export { pieceSystem, type PieceSystem } from './pieceSystem.ts';
export { settingInWords } from './settingInWords.ts';
