/**
 * Reads a number as people type it, with a comma or a point, a hyphen or a minus; NaN where it is none, so that a form can say so.
 * What only a programmer writes (`1e3`, `0x10`, `Infinity`) is none. Everything that is typed as a bare number is read here.
 *
 * @example numberTyped(' 87,9 ') // 87.9
 */
export function numberTyped(text: unknown): number {
  const typed = String(text ?? '')
    .trim()
    .replace(',', '.')
    .replace('−', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(typed) ? Number(typed) : Number.NaN;
}
