export { doubtLimits, type LimitDoubt } from './doubtLimits.ts';
export { doubtMeans, type MeansDoubt } from './doubtMeans.ts';
export {
  layOutHeads,
  stepOnHead,
  type Bore,
  type HeadMap,
  type HeadOutline,
  type HeadPlace,
  type Step,
} from './headMap.ts';
export { lashPoints, meansFor, pieceUnit, ROLE_WORDS, rolesOf, type LashPoint } from './lashPoints.ts';
export { camsOf, gearParts, journalsOf, lobesOf, valvesOf, type Valve } from './trainPlaces.ts';
export { parseLimits, type ParsedLimits } from './parseLimits.ts';
export type {
  Bank,
  BrakeRocker,
  Cylinder,
  Layout,
  Means,
  Pattern,
  Role,
  SizeRange,
  ValveTiming,
} from './pattern.ts';
