export { counted, ordinal } from './counted.ts';
export { mmFromTenths, TENTHS_PER, tenthsFromMm, type LengthUnit, type Tenths } from './tenths.ts';
export { numberTyped } from './numberTyped.ts';
export { parseLength, unitOf, type LengthError, type ParsedLength } from './parseLength.ts';
export { parseFigure, type FigureUnit } from './parseFigure.ts';
export {
  figureShown,
  figureTyped,
  figureWithUnit,
  METRIC,
  systemOf,
  unitShown,
  type MeasureSystem,
  type ShownIn,
} from './shownIn.ts';
export { parsePitch } from './parsePitch.ts';
export { formatInterval, formatLength, lengthWithUnit, type ShopUnit } from './formatLength.ts';
