import { TENTHS_PER } from '@zero-lash/core/length';

/** What one line of a gauge says. */
export type GaugeLine =
  | { readonly kind: 'greeting'; readonly name: string; readonly simulated: boolean }
  | {
      readonly kind: 'value';
      /** counts presses, so that a lost one is noticed */
      readonly press: number;
      readonly mm: number;
      readonly text: string;
    }
  | { readonly kind: 'unreadable'; readonly text: string };

const GREETING = /^ZLG 1 (\S.{0,59}?)( simulated)?$/;
const VALUE = /^V (\d{1,9}) (-?\d{1,3}(?:\.\d{1,6})?) (mm|um|thou|in)$/;

/**
 * Understands one line of a bench gauge, without its line end. The protocol is described in docs/formats.md.
 *
 * @example readGaugeLine('V 12 0.152 mm') // { kind: 'value', press: 12, mm: 0.152, text: '0.152 mm' }
 */
export function readGaugeLine(line: string): GaugeLine {
  const text = line.trim();
  const greeting = GREETING.exec(text);
  if (greeting) return { kind: 'greeting', name: greeting[1]!, simulated: greeting[2] !== undefined };
  const value = VALUE.exec(text);
  if (!value) return { kind: 'unreadable', text: text.slice(0, 80) };
  const unit = value[3] as keyof typeof TENTHS_PER;
  const mm = Math.round(Number(value[2]) * TENTHS_PER[unit]) / TENTHS_PER.mm;
  return { kind: 'value', press: Number(value[1]), mm, text: `${value[2]} ${unit}` };
}
