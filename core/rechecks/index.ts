export { addDays, dayInWords, daysBetween, type Day } from './calendar.ts';
export { DUE_IN_LAST_OF, DUE_WITHIN_DAYS, dueState, type DueState, type RecheckOutcome } from './dueState.ts';
export { runningsOf, type LoggedFigure, type RunAt } from './meterLog.ts';
export { onMeter, type Metered } from './onMeter.ts';
export {
  isBeforeService,
  isEmptyStep,
  nextRecheck,
  planWhereSetCold,
  stepsOn,
  type RecheckDue,
  type RecheckStep,
} from './plan.ts';
export { isQuiet, quietUntil, type QuietHours } from './quiet.ts';
export { isDayOfYear, nextOf, seasonAfter, type Season } from './season.ts';
export { leftOfLook, pointsOfLook, suspectsOf } from './shortLook.ts';
export { runningWarning, type RunningWarning } from './runningWarning.ts';
export {
  driftForecast,
  driftOf,
  type DriftForecast,
  type DriftForecastInput,
  type KnownDrift,
} from './driftForecast.ts';
export {
  broughtForward,
  causesOf,
  courseAhead,
  FORECAST_THRESHOLD,
  ownDrift,
  pointForecasts,
  rolePriors,
  saidOf,
  statedPrior,
  USUAL_FEEL,
  type OwnDrift,
  type PointCourse,
  type PointForecast,
  type RolePrior,
} from './pointForecasts.ts';
export { hasMeter, runningInWords, USAGE_UNITS, type UsageUnit } from './usageUnit.ts';
export {
  recheckDay,
  recheckDayInLetter,
  recheckDayInWords,
  type DatedRecheck,
  type RecheckDay,
} from './recheckDay.ts';
export { recheckDue, type RecheckDueInput, type RecheckExpected } from './recheckDue.ts';
export { driftInWords, type SaidDrift } from './driftInWords.ts';
export { comesInWords, nextCheckInWords, type NextCheck } from './nextCheck.ts';
export { CHANGE_WORDS, DUE_WORDS, outcomeInWords, type RecheckChange } from './words.ts';
