export { benchReach, type LimitReach } from './benchReach.ts';
export { bladesOf, mayBeBlade, stampOf, thicknessOf, type Blade, type BladeSet } from './bladeSet.ts';
export { nextByBlade, type BladeAtPoint, type PointByBlades } from './bladeByBlade.ts';
export { assess, type Assessment, type AssessInput } from './assess.ts';
export { bladeStack, handierStack, stacksOf, type NearestStack, type Stack } from './bladeStack.ts';
export { conditionCautions, hotClock, type Conditions, type HotClock, type Meant } from './conditions.ts';
export { justGoes } from './justGoes.ts';
export { lookFirst, type LookFirst } from './lookFirst.ts';
export { goNoGo, heldBlades, type GoNoGo, type HeldBlades } from './goNoGo.ts';
export {
  boundedGap,
  gapInTenths,
  hasFloor,
  intervalOf,
  USUAL_REPEATABILITY_MM,
  whyUnknown,
  type Interval,
  type KnownGap,
  type Unknown,
} from './interval.ts';
export {
  hasLimits,
  heldHot,
  limitedPoints,
  limitsHeld,
  measuredPoints,
  type HeldAgainst,
  type LimitedPoint,
  type MeasuredPoint,
  type WhenHot,
} from './limitedPoints.ts';
export { endsOf, judge, limitsFromMm, specOf, type Judgement, type Limits, type Verdict } from './judge.ts';
export { NARROW_ENOUGH_MM, narrowingBlade, type NarrowingBladeInput } from './narrowingBlade.ts';
export { nextBlade, type BladeTest, type NextBladeInput } from './nextBlade.ts';
export { saysOtherwise } from './saysOtherwise.ts';
export { parseEntry, type ParsedEntry } from './parseEntry.ts';
export { parseTries, parseTry } from './parseTry.ts';
export type { Reading, Try, TryResult } from './reading.ts';
export {
  compareLooks,
  foresee,
  isDecided,
  withoutContradicted,
  type Foreseen,
  type LooksCompared,
} from './tries.ts';
export { UNREACHED, unreachedIn } from './unreached.ts';
export { isWithdrawal, whyNoProof, type ReadingState, type NoProof } from './proof.ts';
export { TRY_WORDS, VERDICT_WORDS } from './words.ts';
