import { parseLength, type LengthUnit } from '../length/index.ts';
import type { Try, TryResult } from './reading.ts';

const RESULT_KEYS: Readonly<Record<string, TryResult>> = { g: 'goes', d: 'drags', w: 'wont' };

/**
 * Understands a try as it is typed at the bench: a blade's thickness, then the key of what it does.
 *
 * @param text the thickness typed so far, such as `0.13` or `5th`
 * @param key `g` goes, `d` drags, `w` will not
 * @param unit the unit of a bare number
 * @returns null where the key is none of these, or the text is no thickness
 * @example parseTry('0.13', 'w', 'mm') // { thickness: 0.13, result: 'wont' }
 */
export function parseTry(text: string, key: string, unit: LengthUnit): Try | null {
  const result = RESULT_KEYS[key.toLowerCase()];
  const length = parseLength(text, unit);
  // at nothing only "goes" can be said: no blade goes, but it rocks across the gap
  if (!result || 'error' in length || (length.mm <= 0 && result !== 'goes')) return null;
  return { thickness: Math.round(length.mm * 1e4) / 1e4, result };
}

const TYPED_TRY = /([^gdw\s,;](?:[^gdw;]*[^gdw\s,;])?)\s*([gdw])(?:\s*[,;])?\s*/giy;

/**
 * Understands tries that were typed in full, with the letter of what each blade does after it, as a touch keyboard sends
 * them or somebody pastes them.
 *
 * @param text such as `0.22g` or `0.22 g, 0.23 w`
 * @param unit the unit of a bare number
 * @returns null where it is anything else
 * @example parseTries('0.22g 0.23w', 'mm') // [{ thickness: 0.22, result: 'goes' }, { thickness: 0.23, result: 'wont' }]
 */
export function parseTries(text: string, unit: LengthUnit): Try[] | null {
  const entry = text.trim();
  const found = [...entry.matchAll(TYPED_TRY)];
  if (found.length === 0 || found.map(([whole]) => whole).join('') !== entry) return null;
  const tries = found.map(([, thickness, key]) => parseTry(thickness!, key!, unit));
  return tries.every((one) => one !== null) ? tries : null;
}
