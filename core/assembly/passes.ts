import { checkKey } from '../checks/index.ts';
import { parseTorqueSteps, type TorqueStep } from './torqueSteps.ts';

/** A fastening of a sheet, as far as its tightening goes. */
export interface Fastening {
  readonly fastening: string;
  readonly steps: string;
}

/** One pass of a tightening: every bolt of a fastening to one torque, or on by one angle. */
export interface Pass {
  /** the check it is ticked off by */
  readonly key: string;
  readonly fastening: string;
  /** from 1, of how many */
  readonly number: number;
  readonly of: number;
  readonly step: TorqueStep;
}

/**
 * Lists the passes in which the fastenings of a sheet are tightened; a fastening whose steps cannot be read has none.
 *
 * Rule: every bolt of a fastening is at one step before any goes on to the next.
 *
 * @example passesOf([{ fastening: 'Head nuts', steps: '60 Nm, then 145 Nm' }]).map(({ number }) => number) // [1, 2]
 */
export function passesOf(torques: readonly Fastening[]): readonly Pass[] {
  return torques.flatMap(({ fastening, steps: text }, row) => {
    const read = parseTorqueSteps(text);
    if ('error' in read) return [];
    return read.steps.map((step, index) => ({
      ...{ key: checkKey('pass', `${row}.${index}`), fastening, step },
      ...{ number: index + 1, of: read.steps.length },
    }));
  });
}

/** Fastenings that hold a cam in its place: its caps, its holder or carrier. */
const HOLDS_CAM = /\bcam(shaft)?s?\b.*\b(caps?|holders?|carriers?|bearings?|bridges?)\b|^caps?\b/i;

/**
 * Lists the passes in which the caps of the cams are tightened, as far as a sheet gives them.
 *
 * @example capPasses([{ fastening: 'Cam caps', steps: '8 Nm, then 14 Nm' }]).length // 2
 */
export const capPasses = (torques: readonly Fastening[]): readonly Pass[] =>
  passesOf(torques).filter(({ fastening }) => HOLDS_CAM.test(fastening));

/**
 * Lists what was begun to be tightened and not finished: a pass is left out, or a fastening stands between two of them.
 *
 * @param done keys of the passes that are ticked
 * @example passesLeft(sheet.torques, new Set(['pass 0.0'])).map(({ number }) => number) // [2]
 */
export function passesLeft(torques: readonly Fastening[], done: ReadonlySet<string>): readonly Pass[] {
  const passes = passesOf(torques);
  const begun = new Set(passes.filter(({ key }) => done.has(key)).map(({ fastening }) => fastening));
  return passes.filter(({ key, fastening }) => begun.has(fastening) && !done.has(key));
}
