import { mmFromTenths, parseLength, tenthsFromMm } from '@zero-lash/core/length';

/** Blades understood from a line, in mm, thinnest first; or what is wrong. */
export type BladesTyped = { readonly blades: readonly number[] } | { readonly error: string };

/** A figure and its unit in one piece, so that a space parts blades only. */
const together = (part: string) => part.trim().replace(/(\d)\s+(mm|um|thou|th|mil|inch|in)\b/gi, '$1$2');

/**
 * Understands the blades of a set as they are typed: figures, each with a unit or in the set's own, and runs such as
 * `0.05–0.40 by 0.01`.
 *
 * @param unit what a bare figure is in: mm, or inches
 * @example bladesTyped('0.05-0.07 by 0.01, 0.1', 'mm') // { blades: [0.05, 0.06, 0.07, 0.1] }
 */
export function bladesTyped(text: string, unit: 'mm' | 'in'): BladesTyped {
  const found = new Set<number>();
  const read = (part: string) => {
    const parsed = parseLength(part, unit);
    return 'error' in parsed || parsed.mm <= 0 ? null : tenthsFromMm(parsed.mm);
  };
  for (const part of text.split(/[,;\n]+/).map(together)) {
    if (part === '') continue;
    const run = /^(\S+)\s*(?:-|–|to)\s*(\S+)\s+by\s+(\S+)$/.exec(part);
    const sizes = run ? run.slice(1, 4).map(read) : part.split(/\s+/).map(read);
    const wrong = sizes.findIndex((size) => size === null);
    if (wrong >= 0)
      return { error: `“${part}” is not a blade. Type 0.05, or a run such as 0.05–0.40 by 0.01.` };
    const [from, to, step] = sizes as [number, number, number];
    if (run && (step <= 0 || to < from || (to - from) / step > 200))
      return { error: `The run “${part}” does not come to blades.` };
    if (run) for (let at = from; at <= to; at += step) found.add(at);
    else (sizes as number[]).forEach((size) => found.add(size));
  }
  return { blades: [...found].sort((a, b) => a - b).map(mmFromTenths) };
}

/** What a micrometer says of blades, in mm; or what is wrong. */
export type MeasuredTyped =
  | { readonly measured: readonly { readonly blade: number; readonly is: number }[] }
  | { readonly error: string };

/**
 * Understands what blades measured as it is typed: `0.30 is 0.298`, one after another.
 *
 * @param unit what a bare figure is in: mm, or inches
 * @example measuredTyped('0.30 is 0.298', 'mm') // { measured: [{ blade: 0.3, is: 0.298 }] }
 */
export function measuredTyped(text: string, unit: 'mm' | 'in'): MeasuredTyped {
  const measured: { blade: number; is: number }[] = [];
  for (const part of text.split(/[,;\n]+/).map((each) => each.trim())) {
    if (part === '') continue;
    const [blade, is] = part.split(/\s+is\s+|\s*=\s*/).map((each) => parseLength(each, unit));
    if (!blade || !is || 'error' in blade || 'error' in is)
      return { error: `“${part}” is not understood. Type 0.30 is 0.298.` };
    measured.push({ blade: mmFromTenths(tenthsFromMm(blade.mm)), is: mmFromTenths(tenthsFromMm(is.mm)) });
  }
  return { measured };
}
