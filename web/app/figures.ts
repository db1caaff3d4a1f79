/**
 * Writes a running figure with its thousands apart: `61,480`, `87.9`. By hand, because the browser's own formatter
 * costs the first page a twentieth of a second to make.
 */
export function grouped(value: number): string {
  const [whole = '', fraction] = String(value).split('.');
  const apart = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return fraction === undefined ? apart : `${apart}.${fraction}`;
}

/** A number as typed, comma or point; anything else stays wrong so that the form can say so. */
export function numberTyped(text: unknown): number {
  const typed = String(text ?? '')
    .trim()
    .replace(',', '.');
  return typed === '' ? Number.NaN : Number(typed);
}
