import { impossible } from '../bounds/index.ts';
import { numberTyped } from '../length/index.ts';
import { torque, type TorqueUnit } from './torque.ts';

/** One step of tightening: to a torque, or on by an angle. */
export type TorqueStep =
  /** `toNm` is the most, where the source gives a range */
  | { readonly kind: 'torque'; readonly nm: number; readonly toNm?: number; readonly asWritten: string }
  | { readonly kind: 'angle'; readonly degrees: number; readonly asWritten: string }
  /** by hand or nipped up, before there is any torque to it */
  | { readonly kind: 'by-hand'; readonly asWritten: string };

/** No fastening is turned on by more in one step. */
const MOST_DEGREES = 360;
const BY_HAND = /^(?:finger[\s-]?tight|hand[\s-]?tight|by hand|nip(?:ped)?(?: up)?|snug(?: down)?|seated)$/i;

const UNIT_WORDS: readonly (readonly [RegExp, TorqueUnit])[] = [
  [/^n[\s·.-]?m$/, 'N·m'],
  [/^(?:lb[sf]?|pounds?)[\s·.-]?(?:ft|feet|foot)$|^(?:ft|foot|feet)[\s·.-]?(?:lb[sf]?|pounds?)$/, 'lbf·ft'],
  [/^(?:lb[sf]?|pounds?)[\s·.-]?(?:in|inch(?:es)?)$|^in(?:ch(?:es)?)?[\s·.-]?(?:lb[sf]?|pounds?)$/, 'lbf·in'],
  [/^(?:kgf?|kp)[\s·.-]?m$/, 'kgf·m'],
];
const ANGLE = /^°|^deg(?:rees?)?$/;
const FIGURE = String.raw`\d+(?:[.,]\d+)?`;
const STEP = new RegExp(
  String.raw`^(?:\+|turn|plus)?\s*(${FIGURE})(?:\s*(?:[-–—]|to)\s*(${FIGURE}))?\s*(.*)$`,
);
/** What a torque is given with: it goes with the figure, and is no unit. */
const LUBRICANT =
  /[\s,(]*\b(?:dry|(?:(?:threads?|faces?|heads?|bolts?|washers?)\s+)?(?:oiled|greased|lubricated|dry)|with\s+(?:engine\s+)?(?:oil|grease|thread\s?lock(?:ing)?(?:\s+\w+)?|sealant))\b[)\s]*$/i;

/**
 * Reads the steps of a tightening as a sheet writes them: `8 Nm, then 14 Nm`, `20 N·m + 90°`.
 *
 * Rule: steps stand between commas, semicolons, `then` and `+`; a figure with no unit takes the next one's that has one. A torque of
 * nothing is none: what is only run down is “finger-tight” or “nipped up”. A range keeps both its ends, and what the threads are given
 * stays with its figure: dry and oiled threads are not tightened alike.
 *
 * @returns the steps in N·m and degrees, or what of it is not understood; `cannotBe` where it is, and no fastening is given that
 * @example parseTorqueSteps('20 Nm, then 90°') // { steps: [{ kind: 'torque', nm: 20, … }, { kind: 'angle', degrees: 90, … }] }
 */
export function parseTorqueSteps(
  text: string,
): { readonly steps: readonly TorqueStep[] } | { readonly error: string; readonly cannotBe?: boolean } {
  const pieces = text
    .split(/\s*(?:[;+]|,(?!\d)|\bthen\b|\band\b)\s*/i)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '');
  if (pieces.length === 0) return { error: 'no torque is given' };
  const steps: TorqueStep[] = [];
  let unit: string | undefined;
  for (const asWritten of withLubricants(pieces).toReversed()) {
    if (BY_HAND.test(asWritten)) {
      steps.push({ kind: 'by-hand', asWritten });
      continue;
    }
    const [, digits, most, own = ''] = STEP.exec(asWritten.replace(LUBRICANT, '')) ?? [];
    if (digits === undefined) return { error: `“${asWritten}” is no torque and no angle` };
    const value = numberTyped(digits);
    const word = own.trim().toLowerCase();
    if (ANGLE.test(word)) {
      if (value <= 0 || value > MOST_DEGREES) return { error: `“${asWritten}” is no angle to turn on by` };
      steps.push({ kind: 'angle', degrees: value, asWritten });
      continue;
    }
    if (word !== '') unit = word;
    const from = UNIT_WORDS.find(([pattern]) => pattern.test(unit ?? ''))?.[1];
    if (!from) return { error: `“${asWritten}” has no unit that is known: N·m, lbf·ft, lbf·in or kgf·m` };
    const nm = torque({ value, from, to: 'N·m' }).value;
    const toNm = most === undefined ? undefined : torque({ value: numberTyped(most), from, to: 'N·m' }).value;
    if (toNm !== undefined && toNm <= nm) return { error: `“${asWritten}”: the least comes first` };
    const cannotBe = impossible('torque', nm) ?? (toNm === undefined ? null : impossible('torque', toNm));
    if (cannotBe) return { error: `“${asWritten}”: ${cannotBe}`, cannotBe: true };
    steps.push({ kind: 'torque', nm, ...(toNm === undefined ? {} : { toNm }), asWritten });
  }
  return { steps: steps.reverse() };
}

/** Puts a lubricant that stands after a comma back to the torque it is given with: `20 Nm, threads oiled`. */
function withLubricants(pieces: readonly string[]): readonly string[] {
  return pieces.reduce<string[]>((all, piece) => {
    const last = all.pop();
    if (last === undefined) return [piece];
    return LUBRICANT.exec(piece)?.index === 0 ? [...all, `${last}, ${piece}`] : [...all, last, piece];
  }, []);
}

/** A torque wrench, as far as it can be set; N·m. */
export interface WrenchRange {
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

/** Which wrench does one torque; null where none reaches it. */
export interface WrenchFor {
  readonly nm: number;
  readonly asWritten: string;
  readonly wrench: string | null;
}

/**
 * Finds the wrench for each torque of a fastening. Of several that reach it, the one with the least range: it is the one that
 * reads it most finely.
 *
 * @example wrenchesFor([{ kind: 'torque', nm: 14, asWritten: '14 Nm' }], [{ id: 'small', from: 2, to: 25 }]) // [{ nm: 14, asWritten: '14 Nm', wrench: 'small' }]
 */
export function wrenchesFor(
  steps: readonly TorqueStep[],
  wrenches: readonly WrenchRange[],
): readonly WrenchFor[] {
  const byRange = [...wrenches].sort((a, b) => a.to - a.from - (b.to - b.from));
  return steps.flatMap((step) => {
    if (step.kind !== 'torque') return [];
    // a torque turned out of another unit is not held against the last of its decimals
    const most = step.toNm ?? step.nm;
    const within = ({ from, to }: WrenchRange) => step.nm >= from - 0.05 && most <= to + 0.05;
    return [{ nm: step.nm, asWritten: step.asWritten, wrench: byRange.find(within)?.id ?? null }];
  });
}
