export { isUnread, type SheetReaders } from './unread.ts';
export { limitWarning, type LimitWarning } from './limitWarning.ts';
export { meansWarnings, type MeansWarning } from './meansWarnings.ts';
export {
  layOutHeads,
  stepOnHead,
  type Bore,
  type HeadMap,
  type HeadOutline,
  type HeadPlace,
  type Step,
} from './headMap.ts';
export { perPattern } from './perPattern.ts';
export {
  FIGURE_KEYS,
  originInWords,
  originsOf,
  unknownsOf,
  type FigureKey,
  type FigureOrigins,
  type Origin,
  type SheetFigures,
  type Unknown,
} from './origins.ts';
export {
  bothNames,
  cylinderName,
  makersName,
  nameable,
  namesComplaint,
  pointNamed,
  rowComplaint,
  valvesAlong,
} from './makersNames.ts';
export {
  lashPoints,
  LOCKING_WORDS,
  meansFor,
  pieceUnit,
  ROLE_WORDS,
  rolesOf,
  type LashPoint,
} from './lashPoints.ts';
export { lookedAtFor } from './lookAt.ts';
export { camsOf, gearParts, journalsOf, lobesOf, valvesOf, type Valve } from './trainPlaces.ts';
export { leverageOf, pieceGain, type Leverage } from './leverage.ts';
export {
  ALSO_WORDS,
  bandInWords,
  limitsInWords,
  printedFrom,
  resolveBand,
  resolveLimits,
  singleBand,
  singleBandComplaint,
  type AlsoKind,
  type AlsoPrinted,
  type FoundBand,
  type PrintedLimits,
  type ResolvedBand,
  type ResolvedLimits,
  type SingleRule,
} from './printedLimits.ts';
export { parseLimits, type LimitsError, type ParsedLimits, type SingleBand } from './parseLimits.ts';
export type {
  Bank,
  BrakeRocker,
  CamsOutPosition,
  Cylinder,
  GapAt,
  Layout,
  Locking,
  MakersPair,
  MarkName,
  Means,
  Pattern,
  PositionSign,
  Readiness,
  Role,
  SizeRange,
  ValveRow,
  ValveTiming,
} from './pattern.ts';
