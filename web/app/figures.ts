import { numberTyped } from '@zero-lash/core/length';

/**
 * Writes a running figure with its thousands apart: `61,480`, `87.9`. By hand, because the browser's own formatter
 * costs the first page a twentieth of a second to make.
 */
export function grouped(value: number): string {
  const [whole = '', fraction] = String(value).split('.');
  const apart = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return fraction === undefined ? apart : `${apart}.${fraction}`;
}

/**
 * A running figure as typed or as it is printed here: `61,480` is sixty-one thousand, for no meter shows thousandths;
 * `87,9` is a decimal comma.
 */
export function runningTyped(text: unknown): number {
  const typed = String(text ?? '').trim();
  return numberTyped(/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(typed) ? typed.replaceAll(',', '') : typed);
}
