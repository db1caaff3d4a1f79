export { crankStops, type CrankStop, type CrankStopsInput, type CrankStopsPlan } from './crankStops.ts';
export {
  arcsOf,
  bandsOf,
  layOutWheel,
  onWheel,
  radiusIn,
  ringPath,
  TURN,
  type WheelArc,
  type WheelBands,
  type WheelTrack,
} from './crankWheel.ts';
export {
  firingAngles,
  firingSteps,
  parseFiringOrder,
  type FiringAngles,
  type FiringOrder,
} from './firingOrder.ts';
export { openPairs, type OpenPair, type OpenPairsInput } from './openPairs.ts';
export { apart, CYCLE, inCycle, mayMeasureAt, openSpan, type OpenSpan, type TimedPoint } from './openSpan.ts';
export {
  firstSchool,
  planStops,
  tableDifferences,
  type TableDifference,
  signOf,
  whichTdc,
  type CylinderSign,
  type PlannedStop,
  type PositionSchool,
  type StopPlan,
  type TdcAnswer,
} from './stopPlan.ts';
export { stopProgress, type StopProgress, type StopStatus } from './stopProgress.ts';
export { stopTable, type StopTableInput, type StopTableRow } from './stopTable.ts';
export {
  camByHandInWords,
  gonePastInWords,
  NO_MARK_CAUTION,
  POSITION_SCHOOLS,
  schoolsFor,
  pointsInWords,
  camsOutInWords,
  marksInWords,
  signsInWords,
  turningInWords,
  wayToStop,
} from './stopWords.ts';
export {
  pointsNeverClosed,
  gearAt,
  mayMeasurePoint,
  pointsClosedAt,
  spannedPoints,
  type GearState,
  type SpannedPoint,
} from './valveGear.ts';
export { liftShare } from './valveLift.ts';
export { marginOf } from './margin.ts';
export { markNameAt, picturesAt, signAt, stopsAt, type PositionPicture } from './seenAt.ts';
