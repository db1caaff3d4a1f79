import {
  numberTyped,
  mmFromTenths,
  TENTHS_PER,
  tenthsFromMm,
  unitOf,
  type LengthUnit,
} from '../length/index.ts';

/** Limits as a source writes them, understood; lengths in mm. */
export interface ParsedLimits {
  readonly from: 'range' | 'tolerance' | 'single';
  /** the one figure, where the source gives no more */
  readonly figure: number | null;
  /** null for one figure where no band is laid round it */
  readonly min: number | null;
  readonly max: number | null;
  /** the figure that a tolerance stands about, and how far it goes over it */
  readonly nominal: number | null;
  readonly tolerance: number | null;
  /** the unit that was said, or the one figures were read in */
  readonly unit: LengthUnit;
  /** whether what stands in brackets says the same; null where nothing does */
  readonly agrees: boolean | null;
  /** the units in which it would be a clearance, where none was said and it is hardly one as it was read; asked first */
  readonly doubt: readonly LengthUnit[] | null;
}

/** The band laid round one figure, mm: a rule of the shop, and not the maker's. */
export interface SingleBand {
  readonly below: number;
  readonly above: number;
}

/** What is wrong with limits as they were typed, in the order it is looked for. */
export type LimitsError =
  | 'not a pair of limits'
  | 'say the unit of what stands in brackets'
  | 'the least is below nothing'
  | 'the least comes first';

interface Figure {
  readonly digits: string;
  readonly unit: LengthUnit | null;
}

interface Printed {
  readonly from: ParsedLimits['from'];
  /** two of a range, the nominal with what is below and above it, or one */
  readonly figures: readonly Figure[];
}

const FIGURE = String.raw`(\d+(?:[.,]\d+|\.(?![.\d]))?|[.,]\d+)\s*([a-zµμ"]*)`;
const DASH = '[-‐‑–—−]';
const NUMBERS = {
  symmetric: new RegExp(String.raw`^${FIGURE}\s*(?:±|\+\s*/\s*${DASH})\s*${FIGURE}$`, 'i'),
  overUnder: new RegExp(String.raw`^${FIGURE}\s*\+\s*${FIGURE}\s*[/,\s]\s*${DASH}\s*${FIGURE}$`, 'i'),
  underOver: new RegExp(String.raw`^${FIGURE}\s*${DASH}\s*${FIGURE}\s*[/,\s]\s*\+\s*${FIGURE}$`, 'i'),
  // three dots are one sign, before two are
  range: new RegExp(String.raw`^${FIGURE}\s*(?:${DASH}|to|\.\.\.|\.\.|…)\s*${FIGURE}$`, 'i'),
  single: new RegExp(`^${FIGURE}$`, 'i'),
};
const IN_BRACKETS = /^(.*?)\s*(?:\(([^()[\]]*)\)|\[([^()[\]]*)\])$/s;

/** mm: a clearance lies between, and what is far outside was read in another unit. */
const CLEARANCE = { least: 0.03, most: 2 };
/** mm: figures in two units are rounded by this much at most. */
const ROUNDED_BY = 0.013;
const ON_BOUNDARY = 1e-9;
const ASKED: readonly LengthUnit[] = ['mm', 'thou', 'in'];

/**
 * Understands limits as a manual prints them: a pair, a figure with its tolerance, or one figure; after it perhaps the same in
 * another unit, in brackets.
 *
 * A unit that is said once governs all figures of its pair. One figure has no limits of its own: its band is a rule of the shop.
 *
 * @param text such as `0.20–0.30`, `3 to 5 thou`, `0.15 ± 0.04 mm`, `0.10 +0.05/-0.02`, `12 thou (0.30 mm)`
 * @param defaultUnit the unit of figures that none is said of
 * @param single the shop's band round one figure, mm
 * @returns limits in mm, whole in tenths of a micrometre; or what is wrong, see `LimitsError`
 * @example parseLimits('3 to 5 thou', 'mm') // { from: 'range', min: 0.0762, max: 0.127, unit: 'thou', … }
 * Rule: manuals as they are printed; two figures of one gap in two units lie within 0.013 mm of one another.
 */
export function parseLimits(
  text: string,
  defaultUnit: LengthUnit,
  single?: SingleBand,
): ParsedLimits | { readonly error: LimitsError } {
  const entry = text.trim();
  const [, before, round, square] = IN_BRACKETS.exec(entry) ?? [];
  const bracketed = round ?? square;
  const printed = readPrinted((before ?? entry).trim());
  const beside = bracketed === undefined ? null : readPrinted(bracketed.trim());
  if (!printed || (bracketed !== undefined && !beside)) return { error: 'not a pair of limits' };
  if (beside && unitSaid(beside) === null) return { error: 'say the unit of what stands in brackets' };
  const { nominal, ends } = lengthsOf(printed, defaultUnit);
  const figure = printed.from === 'single' ? round4(ends[0]) : null;
  const exact =
    figure === null ? ends : single && ([ends[0] - single.below, ends[0] + single.above] as const);
  if (exact && exact[0] < -ON_BOUNDARY) return { error: 'the least is below nothing' };
  const band = exact && ([round4(exact[0]), round4(exact[1])] as const);
  if (band && band[0] >= band[1]) return { error: 'the least comes first' };
  return {
    from: printed.from,
    figure,
    min: band?.[0] ?? null,
    max: band?.[1] ?? null,
    nominal: nominal === null ? null : round4(nominal),
    tolerance: nominal === null ? null : round4(ends[1] - nominal),
    unit: unitSaid(printed) ?? defaultUnit,
    agrees: beside && saysTheSame(printed, beside, defaultUnit),
    doubt: doubtOf(printed, defaultUnit),
  };
}

const round4 = (mm: number) => mmFromTenths(tenthsFromMm(mm));

function readPrinted(text: string): Printed | null {
  for (const [kind, pattern] of Object.entries(NUMBERS)) {
    const match = pattern.exec(text);
    if (!match) continue;
    const figures = figuresOf(match.slice(1));
    if (!figures) return null;
    const [first, second, third] = figures as [Figure, Figure?, Figure?];
    if (kind === 'range') return { from: 'range', figures };
    if (kind === 'single') return { from: 'single', figures };
    // the nominal, then what is below it and above it
    const below = kind === 'overUnder' ? third! : second!;
    const above = kind === 'underOver' ? third! : second!;
    return { from: 'tolerance', figures: [first, below, above] };
  }
  return null;
}

/** Figures with their units, by pairs of digits and suffix; null where a unit is none, or two differ and one is not said. */
function figuresOf(parts: readonly (string | undefined)[]): readonly Figure[] | null {
  const figures: Figure[] = [];
  for (let at = 0; at < parts.length; at += 2) {
    const unit = unitOf(parts[at + 1] ?? '', null);
    if (unit === undefined) return null;
    figures.push({ digits: parts[at]!, unit });
  }
  const said = new Set(figures.flatMap(({ unit }) => unit ?? []));
  if (said.size > 1) return figures.every(({ unit }) => unit !== null) ? figures : null;
  const [only = null] = said;
  return figures.map(({ digits }) => ({ digits, unit: only }));
}

/** The unit said of figures, the last where they have one each; null where none was. */
const unitSaid = ({ figures }: Printed): LengthUnit | null => figures.at(-1)!.unit;

function lengthsOf(
  { from, figures }: Printed,
  defaultUnit: LengthUnit,
): { readonly nominal: number | null; readonly ends: readonly [number, number] } {
  const mm = figures.map(
    ({ digits, unit }) => (numberTyped(digits) * TENTHS_PER[unit ?? defaultUnit]) / TENTHS_PER.mm,
  );
  const [first, second = first!, third = second] = mm as [number, number?, number?];
  return from === 'tolerance'
    ? { nominal: first, ends: [first - second, first + third] }
    : { nominal: null, ends: [first, second] };
}

function saysTheSame(printed: Printed, beside: Printed, defaultUnit: LengthUnit): boolean {
  if ((printed.from === 'single') !== (beside.from === 'single')) return false;
  const [here, there] = [printed, beside].map((each) => lengthsOf(each, defaultUnit).ends) as [
    readonly [number, number],
    readonly [number, number],
  ];
  return here.every((end, index) => Math.abs(end - there[index]!) <= ROUNDED_BY + ON_BOUNDARY);
}

function doubtOf(printed: Printed, defaultUnit: LengthUnit): readonly LengthUnit[] | null {
  if (unitSaid(printed) !== null) return null;
  const isClearance = (unit: LengthUnit) => {
    const [, greatest] = lengthsOf(printed, unit).ends;
    return greatest >= CLEARANCE.least - ON_BOUNDARY && greatest <= CLEARANCE.most + ON_BOUNDARY;
  };
  return isClearance(defaultUnit) ? null : ASKED.filter(isClearance);
}
