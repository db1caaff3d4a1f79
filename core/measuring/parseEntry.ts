import { impossible } from '../bounds/index.ts';
import { parseLength, type LengthUnit } from '../length/index.ts';
import type { Reading } from './reading.ts';

/** An entry at a lash point understood as a reading, or the sentence that says what is wrong with it. */
export type ParsedEntry =
  | {
      readonly reading: Reading;
      readonly unit: LengthUnit;
      /** mm, each length far outside the limits */
      readonly doubts: readonly number[];
      /** what else may have been meant, likeliest first; it stands beside what was typed, and none is pushed */
      readonly meant: readonly Reading[];
    }
  | { readonly error: string };

const GOES_ONLY = /^(?:>|g(?:oes)?\s)\s*(.+)$/i;
const WONT_ONLY = /^(?:<|w(?:ont)?\s)\s*(.+)$/i;
const PART = /(?:\d+(?:[.,]\d*)?|[.,]\d+)\s*(?:mm|um|µm|μm|thou|th|mil|inch|in|")?/gi;

/**
 * Understands what a person types at a lash point: one length (a blade with a light drag, or a gauge's value), two
 * (the blade that goes and the one that will not), or one with `>` or `<` (only the side that is known).
 *
 * @param text such as `0.15`, `0.13 0.15`, `5 6 thou`, `>0.10`, `<0,3`
 * @param defaultUnit the shop's unit
 * @param spec the point's limits in mm
 * @returns the reading with its doubts, or a sentence
 * @example parseEntry('0.13 0.15', 'mm', { min: 0.1, max: 0.2 }) // a bracket of 0.13 and 0.15
 */
export function parseEntry(
  text: string,
  defaultUnit: LengthUnit,
  spec: { readonly min: number; readonly max: number },
): ParsedEntry {
  const entry = text.trim();
  if (entry === '') return { error: 'Type a length such as 0.15, or a bracket such as 0.13 0.15.' };
  const goesOnly = GOES_ONLY.exec(entry);
  const wontOnly = WONT_ONLY.exec(entry);
  const body = (goesOnly ?? wontOnly)?.[1] ?? entry;
  if (/[-−]\s*\d/.test(body)) return { error: 'A clearance is never negative: leave out the sign.' };
  const parts = body.match(PART) ?? [];
  if (parts.join('').replace(/\s/g, '') !== body.replace(/\s/g, '') || parts.length === 0)
    return { error: `“${entry}” is not a length. Type one such as 0.15, or a bracket such as 0.13 0.15.` };
  if (parts.length > 2 || ((goesOnly || wontOnly) && parts.length > 1))
    return { error: 'Type one length, or two: the blade that goes and the one that will not.' };

  const unit = parts.map((part) => unitOf(part)).find((found) => found !== null) ?? defaultUnit;
  const lengths = parts.map((part) => parseLength(part, unit, spec));
  const known = lengths.flatMap((length) => ('error' in length ? [] : [length]));
  if (known.length !== lengths.length) return { error: `“${entry}” is not a length.` };
  const doubts = known.flatMap(({ mm, doubt }) => (doubt ? [mm] : []));
  const values = known.map(({ mm }) => mm);
  const meant = meantBy(known);
  const build = (numbers: readonly number[]) =>
    readingFrom(numbers, goesOnly ? 'goes' : wontOnly ? 'wont' : 'both');
  if (values.some((mm) => impossible('gap', mm) !== null) && meant.length === 0)
    return { error: `No clearance is ${Math.max(...values)} mm. Check the number and its unit.` };
  const reading = build(values);
  if (reading.kind === 'drag' && reading.blade === 0) return { error: NO_BLADE };
  if (reading.kind === 'bracket' && reading.go >= reading.noGo)
    return { error: 'The blade that goes comes first and is the thinner of the two.' };
  return {
    reading,
    unit,
    doubts,
    meant: meant.map(build).filter((each) => each.kind !== 'bracket' || each.go < each.noGo),
  };
}

const NO_BLADE =
  'A blade has a thickness. Where none goes and it still rocks across the gap, up and down, type 0 g.';

/** The figures that may have been meant: the same slip at each of them; nothing where one has no other meaning. */
function meantBy(
  known: readonly {
    readonly mm: number;
    readonly doubt: { readonly suggestions: readonly number[] } | null;
  }[],
): readonly (readonly number[])[] {
  const each = known.map(({ mm, doubt }) => doubt?.suggestions ?? [mm]);
  const ways = Math.max(...each.map(({ length }) => length));
  if (known.every(({ doubt }) => doubt === null) || each.some(({ length }) => length === 0)) return [];
  return Array.from({ length: ways }, (_, way) =>
    each.map((figures) => figures[Math.min(way, figures.length - 1)]!),
  );
}

function readingFrom(lengths: readonly number[], side: 'goes' | 'wont' | 'both'): Reading {
  const [first, second] = lengths as [number, number?];
  if (side === 'goes') return { kind: 'go-only', go: first };
  if (side === 'wont') return { kind: 'no-go-only', noGo: first };
  if (second === undefined) return { kind: 'drag', blade: first };
  return { kind: 'bracket', go: first, noGo: second };
}

function unitOf(part: string): LengthUnit | null {
  const suffix = part.replace(/[\d.,\s]/g, '');
  if (suffix === '') return null;
  const parsed = parseLength(part, 'mm');
  return 'error' in parsed ? null : parsed.unit;
}
