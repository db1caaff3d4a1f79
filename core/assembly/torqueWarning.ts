import { parseTorqueSteps } from './torqueSteps.ts';

/** A torque that can hardly be meant, and what may have been. */
export interface TorqueWarning {
  /** as it is written */
  readonly written: string;
  readonly why: string;
  /** the same figure with its point moved one place, where that can be; N·m, null where neither can */
  readonly meantNm: number | null;
}

/** What each kind of fastening is tightened to at the last, N·m; the first whose name fits is gone by. */
const USUAL: readonly { readonly named: RegExp; readonly from: number; readonly to: number }[] = [
  { named: /cover/i, from: 3, to: 30 },
  { named: /\bcaps?\b|bearing/i, from: 5, to: 60 },
  { named: /rocker|shaft|pedestal/i, from: 6, to: 120 },
  { named: /plug|nozzle/i, from: 6, to: 60 },
  { named: /head/i, from: 15, to: 400 },
];

/**
 * Says whether the torques of a fastening can hardly be meant: ten times what such a fastening is ever given, or a tenth of it, or
 * a later step under an earlier one. A warning never blocks: it asks. The maker's manual governs.
 *
 * Rule: our own wide ranges, by what the fastening is called; only a decimal point one place out falls outside them. Of a fastening
 * that is called nothing known there is nothing to hold its torque against, and nothing is asked.
 *
 * @returns null where nothing is odd, or nothing can be read
 * @example torqueWarning('Cover bolts', '90 Nm')?.meantNm // 9
 */
export function torqueWarning(fastening: string, steps: string): TorqueWarning | null {
  const read = parseTorqueSteps(steps);
  if ('error' in read) return null;
  const torques = read.steps.flatMap((step) => (step.kind === 'torque' ? [step] : []));
  const last = torques.at(-1);
  if (!last) return null;
  const usual = USUAL.find(({ named }) => named.test(fastening));
  if (usual && (last.nm < usual.from || last.nm > usual.to)) {
    const { from, to } = usual;
    const meant = [last.nm / 10, last.nm * 10].find((nm) => nm >= from && nm <= to);
    return {
      written: last.asWritten,
      why: `${last.asWritten} is far from what such a fastening is given`,
      meantNm: meant === undefined ? null : Math.round(meant * 10) / 10,
    };
  }
  const lower = torques.find((step, index) => index > 0 && step.nm < torques[index - 1]!.nm);
  return lower
    ? { written: lower.asWritten, why: `${lower.asWritten} comes after a higher one`, meantNm: null }
    : null;
}
