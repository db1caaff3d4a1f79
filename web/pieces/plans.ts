import { shimPlan, type ShimPlan, type ShimPlanInput } from '@zero-lash/core/setting';

/** One plan over all systems of pieces, and what the simple ways would come to. */
export interface Plans {
  readonly plan: Summed;
  /** every shim bought, none moved */
  readonly buyAll: Totals;
  /** nothing bought */
  readonly noneBought: Totals;
}

type Totals = ShimPlan['totals'] & { readonly certain: number; readonly points: number };
interface Summed extends Pick<ShimPlan, 'assignments' | 'orders' | 'leftOver'> {
  readonly totals: Totals;
}

/**
 * Plans, and holds the plan against buying everything and against buying nothing.
 *
 * @example planAll([question]).plan.totals.ordered
 */
export function planAll(questions: readonly ShimPlanInput[]): Plans {
  const summed = (change: (question: ShimPlanInput) => ShimPlanInput) =>
    sum(questions.map((question) => shimPlan(change(question))));
  return {
    plan: summed((question) => question),
    buyAll: summed((question) => ({ ...question, stock: [], reuseRemoved: false })).totals,
    noneBought: summed((question) => ({ ...question, orderable: [] })).totals,
  };
}

function sum(plans: readonly ShimPlan[]): Summed {
  const assignments = plans.flatMap((plan) => plan.assignments);
  const total = (of: keyof ShimPlan['totals']) => plans.reduce((all, { totals }) => all + totals[of], 0);
  return {
    assignments,
    orders: plans.flatMap(({ orders }) => orders),
    leftOver: plans.flatMap(({ leftOver }) => leftOver),
    totals: {
      unsolved: total('unsolved'),
      uncertain: total('uncertain'),
      ordered: total('ordered'),
      price: total('price'),
      deviation: total('deviation'),
      changed: total('changed'),
      certain: assignments.filter(({ status }) => status === 'certain').length,
      points: assignments.length,
    },
  };
}
