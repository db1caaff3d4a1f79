import * as features from './features.ts';

export {
  gradeOf,
  gradeOfLimit,
  shareOfLimit,
  shareUsed,
  worstOf,
  type Grade,
  type WearLimits,
} from './grade.ts';
export {
  CHARACTERISTICS,
  characteristicOf,
  gradePressures,
  PARTS,
  WEAR_PAGES,
  type Characteristic,
  type Derived,
  type PartKind,
  type WearField,
  type WearPage,
} from './characteristics.ts';
export {
  limitComplaint,
  LIMIT_KINDS,
  limitAt,
  type GivenLimit,
  type LimitKey,
  type WearUnit,
} from './limitKinds.ts';
export { parseFigures, type TypedFigures } from './typedFigures.ts';
export { figureWarning, type TypedWhere, type WearWarning } from './figureWarning.ts';
export { partDispositions, type PartDisposition } from './partDispositions.ts';
export {
  DAMAGE,
  wearKey,
  type Damage,
  type FateLine,
  type FigureLine,
  type LimitLine,
  type MarkLine,
  type WearLine,
} from './wearLines.ts';
export { characteristicsFor, placesLimited, placesOf, type WearPlace } from './wearPlaces.ts';
export {
  figuresAt,
  hollowAt,
  wearAt,
  wearSheetOf,
  withLines,
  type WearSheet,
  type WearThere,
} from './wearSheet.ts';
export { wearBetween, type WearTrend } from './betweenBuilds.ts';
export { wearRate, type WearRate, type WearRateInput } from './wearRate.ts';
export type {
  BandInput,
  ChainInput,
  CompressionInput,
  FitInput,
  Graded,
  GuideWobbleInput,
  JournalInput,
  LeakDownInput,
  LobeInput,
  SpringInput,
  StemGuideInput,
  ValueInput,
} from './features.ts';

/** What each feature of a worn valve train comes to, by its name: from its measurements to figures and a grade. */
export const WEAR_FEATURES = {
  lobe: features.lobe,
  journal: features.journal,
  'stem-guide': features.stemGuide,
  spring: features.spring,
  chain: features.chain,
  value: features.value,
  fit: features.fit,
  band: features.band,
  'guide-wobble': features.guideWobble,
  compression: features.compression,
  'leak-down': features.leakDown,
} as const;

/** A feature that can be graded. */
export type WearFeature = keyof typeof WEAR_FEATURES;
