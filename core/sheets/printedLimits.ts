import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import type { LengthUnit } from '../length/index.ts';
import { parseLimits, type LimitsError, type SingleBand } from './parseLimits.ts';

/** What a source prints of one clearance: a pair, or one figure that has no ends of its own; mm. */
export interface PrintedLimits {
  /** the one figure, where the source gives no more; null or absent where it gives a pair */
  readonly figure?: number | null | undefined;
  readonly min: number | null;
  readonly max: number | null;
  /** as it stands in the source; empty where nobody wrote that down */
  readonly asWritten: string;
}

/** What else a source prints for a role: what is left alone as found, what holds once it is run in, and what holds hot where cold is measured. */
export type AlsoKind = 'leave' | 'after-run-in' | 'other-condition';

/** One of them; mm. */
export interface AlsoPrinted extends PrintedLimits {
  readonly kind: AlsoKind;
}

/** The band that a shop lays round one figure: one for figures up to a size, another for those over it; mm. */
export interface SingleRule {
  readonly size: number;
  readonly upTo: SingleBand;
  readonly over: SingleBand;
}

/**
 * Reads limits as a source prints them into what a sheet holds of them, with the unit said that bare figures are in.
 *
 * @param text such as `0.20–0.30` or `12 thou (0.30 mm)`
 * @param unit of figures that none is said of
 * @returns what is wrong where it cannot be read
 * @example printedFrom('0.40', 'mm') // { figure: 0.4, min: null, max: null, asWritten: '0.40 mm' }
 */
export function printedFrom(
  text: string,
  unit: LengthUnit,
): (PrintedLimits & { readonly figure: number | null }) | { readonly error: LimitsError } {
  const read = parseLimits(text, unit);
  if ('error' in read) return read;
  const { figure, min, max } = read;
  // what stands in brackets says its unit, and says nothing of the figures before it
  const said = /[a-zµμ"]/i.test(text.replace(/[([].*$/s, '').replace(/\bto\b/gi, ''));
  return { figure, min, max, asWritten: said ? text.trim() : withUnit(text.trim(), unit) };
}

/** A unit said after the figures, before what stands in brackets. */
const withUnit = (text: string, unit: LengthUnit) => {
  const [, figures = text, rest = ''] = /^([^([]*?)(\s*[([].*)$/s.exec(text) ?? [];
  return `${figures} ${unit}${rest}`;
};

/** tenths: what is laid round a figure where the shop says nothing, unless a tenth of the figure is less. */
const USUAL = 200;
const SHARE = 10;

/**
 * Finds the band that is laid round one figure of a source: the shop's rule, or 0.02 mm to either side, and no more than a tenth of the
 * figure, where it has none.
 *
 * @param figure mm
 * @param rule of the shop; null where it has none
 * @returns how far under and over it, in mm
 * @example singleBand(0.4, null) // { below: 0.02, above: 0.02 }
 * Rule: a single figure is the maker's; what is taken round it is the shop's, and a lead answers for more.
 */
export function singleBand(figure: number, rule: SingleRule | null): SingleBand {
  if (rule) return tenthsFromMm(figure) > tenthsFromMm(rule.size) ? rule.over : rule.upTo;
  const by = mmFromTenths(Math.min(USUAL, Math.floor(tenthsFromMm(figure) / SHARE)));
  return { below: by, above: by };
}

/** A band, and whose it is; mm. */
export interface ResolvedBand {
  readonly min: number;
  readonly max: number;
  /** the maker's one figure, round which the shop laid this band; null where the maker prints it */
  readonly figure: number | null;
}

/**
 * Says what a printed clearance comes to: the pair as it is printed, or the shop's band round one figure, which is never under nothing.
 *
 * @param rule the shop's, as it was when the build was opened; null where it has none
 * @example resolveBand({ figure: 0.4, min: null, max: null, asWritten: '0.40' }, null) // { min: 0.38, max: 0.42, figure: 0.4 }
 */
export function resolveBand(printed: PrintedLimits, rule: SingleRule | null): ResolvedBand {
  if (printed.min !== null && printed.max !== null)
    return { min: printed.min, max: printed.max, figure: null };
  const figure = printed.figure ?? 0;
  const { below, above } = singleBand(figure, rule);
  const at = tenthsFromMm(figure);
  return {
    min: mmFromTenths(Math.max(0, at - tenthsFromMm(below))),
    max: mmFromTenths(at + tenthsFromMm(above)),
    figure,
  };
}

/** What a role is left alone between as it is found, where that is other than what it is set to; mm. */
export interface FoundBand extends ResolvedBand {
  readonly kind: 'leave' | 'after-run-in';
  readonly asWritten: string;
}

/** The limits of a role with every band as it comes to in the shop; mm. */
export type ResolvedLimits<Row extends PrintedLimits> = Omit<Row, 'min' | 'max' | 'figure'> &
  ResolvedBand & {
    /** what it is judged by as it is found; null where that is what it is set to */
    readonly asFound: FoundBand | null;
  };

/**
 * Resolves the limits of a sheet: what is set to, and what is left alone as it is found.
 *
 * Rule: a maker may print two pairs, *leave alone between* and *set to*, or other limits once it is run in. As found it is judged by the
 * first; whatever was touched by the second.
 *
 * @param rule the shop's band round one figure; null where it has none
 * @example resolveLimits([{ role: 'intake', figure: 0.4, min: null, max: null, asWritten: '0.40', also: [] }], null)[0].max // 0.42
 */
export function resolveLimits<
  Row extends PrintedLimits & { readonly also?: readonly AlsoPrinted[] | undefined },
>(limits: readonly Row[], rule: SingleRule | null): readonly ResolvedLimits<Row>[] {
  return limits.map((row) => {
    const found = FOUND_BY.map((kind) => row.also?.find((each) => each.kind === kind)).find(Boolean);
    return {
      ...row,
      ...resolveBand(row, rule),
      asFound: found
        ? {
            ...resolveBand(found, rule),
            kind: found.kind as FoundBand['kind'],
            asWritten: found.asWritten,
          }
        : null,
    };
  });
}

/** What judges as found, the first that is printed. */
const FOUND_BY: readonly AlsoKind[] = ['leave', 'after-run-in'];

/** What is wrong with the shop's band round a figure; null where nothing is. */
export function singleBandComplaint(figure: number, rule: SingleRule | null): string | null {
  const { below, above } = singleBand(figure, rule);
  const at = tenthsFromMm(figure);
  if (at <= 0) return 'one figure of nothing has no band: give the pair it lies in';
  if (tenthsFromMm(below) > at)
    return `the shop’s band goes ${below} mm under it, which is wider than the figure`;
  if (tenthsFromMm(below) + tenthsFromMm(above) < 1)
    return 'so small a figure has no band: give the pair it lies in';
  return null;
}

/**
 * Says limits with whose they are: the maker's pair as it is; one figure with the shop's band beside it, never as the maker's own.
 *
 * @param band how a band is written, from mm
 * @param figure how a length is written, from mm
 * @example bandInWords({ min: 0.37, max: 0.45, figure: 0.4 }, (a, b) => `${a}–${b}`, String) // 'maker: 0.4; shop: 0.37–0.45'
 */
export function bandInWords(
  { min, max, figure }: ResolvedBand,
  band: (min: number, max: number) => string,
  length: (mm: number) => string,
): string {
  return figure === null ? band(min, max) : `maker: ${length(figure)}; shop: ${band(min, max)}`;
}

/**
 * Says limits as their source prints them first, and as they are read beside, where that says anything more; of one figure what the
 * maker printed, and the shop's band.
 *
 * @example limitsInWords({ min: 0.2, max: 0.3, figure: null, asWritten: '0.25 ± 0.05' }, (a, b) => `${a}–${b} mm`, String) // '0.25 ± 0.05 (0.2–0.3 mm)'
 */
export function limitsInWords(
  limits: ResolvedBand & { readonly asWritten: string },
  band: (min: number, max: number) => string,
  length: (mm: number) => string,
): string {
  const { min, max, figure, asWritten } = limits;
  if (figure !== null) return bandInWords(limits, band, (mm) => (asWritten === '' ? length(mm) : asWritten));
  // spaces, kinds of dashes and noughts at the end say nothing
  const plain = (text: string) =>
    text
      .replace(/\s/g, '')
      .toLowerCase()
      .replace(/[-—]/g, '–')
      .replace(/\d+\.\d+/g, (digits) => String(Number(digits)));
  const read = band(min, max);
  return asWritten === '' || plain(asWritten) === plain(read) ? read : `${asWritten} (${read})`;
}

/** What else a source prints, in words. */
export const ALSO_WORDS: Readonly<Record<AlsoKind, string>> = {
  leave: 'left alone between, as found',
  'after-run-in': 'once it is run in',
  'other-condition': 'at the other temperature, not measured by',
};
