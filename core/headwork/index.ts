export { forecastBias, type ForecastBias, type ForecastPair } from './forecasts.ts';
export {
  HEAD_OPERATIONS,
  lashBudget,
  type HeadOperation,
  type HeadStep,
  type LashBudget,
  type LashBudgetInput,
} from './lashBudget.ts';
export { alongAxis, OPERATION_WORDS, operationsFor, type HeadWorkLine } from './headWork.ts';
export { pointBudget, type BudgetRow, type PointBudget, type PointBudgetInput } from './pointBudget.ts';
