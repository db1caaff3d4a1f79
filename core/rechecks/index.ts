export { addDays, daysBetween, type Day } from './calendar.ts';
export { DUE_IN_LAST_OF, DUE_WITHIN_DAYS, dueState, type DueState, type RecheckOutcome } from './dueState.ts';
export { onMeter, type Metered } from './onMeter.ts';
export { nextRecheck, type RecheckDue, type RecheckStep } from './plan.ts';
export { runningDoubt, type RunningDoubt } from './runningDoubt.ts';
export { driftForecast, type DriftForecast, type DriftForecastInput } from './driftForecast.ts';
export { recheckDue, type RecheckDueInput, type RecheckExpected } from './recheckDue.ts';
