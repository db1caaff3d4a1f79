export {
  HEAD_OPERATIONS,
  lashBudget,
  type HeadOperation,
  type HeadStep,
  type LashBudget,
  type LashBudgetInput,
} from './lashBudget.ts';
