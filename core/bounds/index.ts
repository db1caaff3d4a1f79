export {
  BOUNDS,
  MEASURED_IN,
  impossible,
  impossibleDay,
  isUnusual,
  saysSomething,
  type Bound,
  type Quantity,
} from './bounds.ts';
