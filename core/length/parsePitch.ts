import { numberTyped } from './numberTyped.ts';
import { TENTHS_PER } from './tenths.ts';

const PITCH =
  /^(\d+(?:[.,]\d+)?|[.,]\d+)\s*(mm|tpi|threads?(?:\s+(?:per|an|to the)\s+inch|\/in(?:ch)?)|\/in(?:ch)?)?$/i;

/**
 * Reads a thread's pitch as a manual gives it: in millimetres, or as so many threads per inch.
 *
 * @param text such as `1.25`, `0,75 mm`, `24 tpi`, `20 threads per inch`
 * @returns mm, to a tenth of a micrometre
 * @example parsePitch('24 tpi') // { mm: 1.0583 }
 */
export function parsePitch(text: string): { readonly mm: number } | { readonly error: string } {
  const [, digits, unit = 'mm'] = PITCH.exec(text.trim()) ?? [];
  if (digits === undefined) return { error: `“${text.trim()}” is no pitch: 1.25, or 24 tpi` };
  const value = numberTyped(digits);
  if (!(value > 0)) return { error: 'a pitch is above 0' };
  const mm = unit.toLowerCase() === 'mm' ? value : TENTHS_PER.in / TENTHS_PER.mm / value;
  return { mm: Math.round(mm * 10_000) / 10_000 };
}
