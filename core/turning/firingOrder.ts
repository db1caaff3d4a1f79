import { numberTyped } from '../length/index.ts';
import { CYCLE, inCycle } from './openSpan.ts';

/** A firing order understood, or the sentence that says what is wrong with it. */
export type FiringOrder = { readonly order: readonly string[] } | { readonly error: string };

/**
 * Understands a firing order as a manual prints it, and holds it against the cylinders there are.
 *
 * @param text such as `1-3-4-2`, `1 5 3 6 2 4`, `L1-R1-L2-R2`
 * @param cylinders the names of the cylinders there are
 * @example parseFiringOrder('1-3-4', ['1', '2', '3', '4']) // { error: 'Cylinder 2 never fires in this order.' }
 */
export function parseFiringOrder(text: string, cylinders: readonly string[]): FiringOrder {
  const order = text
    .toUpperCase()
    .split(/[^A-Z0-9]+/)
    .filter(Boolean);
  if (order.length === 0) return { error: 'Type the firing order, such as 1-3-4-2.' };
  const stranger = order.find((name) => !cylinders.includes(name));
  if (stranger) return { error: `There is no cylinder ${stranger}.` };
  const twice = order.find((name, index) => order.indexOf(name) !== index);
  if (twice) return { error: `Cylinder ${twice} fires twice in this order.` };
  const missing = cylinders.find((name) => !order.includes(name));
  if (missing) return { error: `Cylinder ${missing} never fires in this order.` };
  return { order };
}

/** The firing angles of cylinders in their order, or the sentence that says what is wrong. */
export type FiringAngles = { readonly angles: readonly number[] } | { readonly error: string };

/**
 * Turns the degrees from one firing to the next into firing angles. Nothing typed means evenly; the last step, back to
 * the first cylinder, may be left out.
 *
 * @param text such as `` (even), `435 285`, `90 270 90`
 * @param count how many cylinders fire
 * @example firingAngles('435', 2) // { angles: [0, 435] }
 */
export function firingAngles(text: string, count: number): FiringAngles {
  const steps = (text.match(/\d+(?:[.,]\d+)?/g) ?? []).map(numberTyped);
  if (/[^\d.,\s°\-–]/.test(text)) return { error: 'Numbers only, such as 435 285.' };
  if (steps.length === 0)
    return { angles: Array.from({ length: count }, (_, index) => inCycle((CYCLE / count) * index)) };
  if (steps.length !== count && steps.length !== count - 1)
    return {
      error: `${count} cylinders have ${count} steps from one firing to the next; this has ${steps.length}.`,
    };
  if (steps.some((step) => step === 0)) return { error: 'A step of 0° would fire two cylinders at once.' };
  const total = steps.reduce((sum, step) => sum + step, 0);
  if (steps.length === count && Math.abs(total - CYCLE) > 1e-6)
    return { error: `The steps add up to ${total}°, not to the 720° of a cycle.` };
  if (steps.length < count && total >= CYCLE)
    return { error: `The steps add up to ${total}°, which is past the 720° of a cycle.` };
  let at = 0;
  return { angles: [0, ...steps].slice(0, count).map((step) => (at += step)) };
}

/**
 * Writes the steps from one firing to the next, as `firingAngles` reads them; nothing where they are even.
 *
 * @param angles in firing order, from 0
 * @example firingSteps([0, 435]) // '435 285'
 */
export function firingSteps(angles: readonly number[]): string {
  const steps = angles.map((angle, index) => (angles[index + 1] ?? CYCLE + angles[0]!) - angle);
  const even = steps.every((step) => Math.abs(step - steps[0]!) < 1e-6);
  return even ? '' : steps.map((step) => String(Math.round(step * 1000) / 1000)).join(' ');
}
