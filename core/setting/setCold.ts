import { tenthsFromMm } from '../length/index.ts';
import {
  resolveBand,
  ROLE_WORDS,
  type AlsoPrinted,
  type ResolvedBand,
  type Role,
  type SingleRule,
} from '../sheets/index.ts';

/** What one role of an engine is set to cold that is measured hot; mm. */
export interface ColdFigure extends ResolvedBand {
  readonly role: Role;
  /** as the maker prints it; empty where it is provisional */
  readonly asWritten: string;
  /** the maker prints none: a lead stands for it until it is measured hot */
  readonly provisional: boolean;
}

/** How an engine that is measured hot and cannot be run is set cold. */
export interface SetCold {
  /** every role of its sheet */
  readonly figures: readonly ColdFigure[];
  /** its gaps had been found hot before: what was found stays judged by the hot figures */
  readonly foundHot: boolean;
  /** why it cannot be run */
  readonly why: string;
}

interface HotRow {
  readonly role: Role;
  readonly also?: readonly AlsoPrinted[] | undefined;
}

/**
 * Finds what a sheet that is measured hot prints for a cold engine, by role, one figure with the shop's band round it.
 *
 * @param rule the shop's band round one figure; null where it has none
 * @returns the roles that the sheet prints nothing for are left out
 * @example printedCold([{ role: 'intake', also: [] }], null) // []
 */
export function printedCold(limits: readonly HotRow[], rule: SingleRule | null): readonly ColdFigure[] {
  return limits.flatMap(({ role, also = [] }) => {
    const cold = also.find(({ kind }) => kind === 'other-condition');
    return cold ? [{ role, ...resolveBand(cold, rule), asWritten: cold.asWritten, provisional: false }] : [];
  });
}

/**
 * Says what is wrong with a provisional gap that a lead gives for a cold engine; null where nothing is.
 *
 * Rule: it is on the loose side: no part of it is under the middle of the hot band, and a valve that stays open burns. More than twice the
 * greatest hot clearance is a slip of the pen.
 *
 * @param hot what the sheet prints of the hot engine, in mm
 * @param cold what is to be set, in mm
 * @example provisionalComplaint({ min: 0.15, max: 0.2 }, { min: 0.18, max: 0.23 }) // null
 */
export function provisionalComplaint(
  hot: { readonly min: number; readonly max: number },
  cold: { readonly min: number; readonly max: number },
): string | null {
  const [min, max] = [tenthsFromMm(cold.min), tenthsFromMm(cold.max)];
  const [hotMin, hotMax] = [tenthsFromMm(hot.min), tenthsFromMm(hot.max)];
  if (max <= min) return 'the least clearance comes first, the greatest after it';
  if (min * 2 < hotMin + hotMax)
    return 'a provisional gap is on the loose side: not under the middle of the hot limits';
  return max > hotMax * 2 ? 'more than twice the greatest hot clearance' : null;
}

/**
 * Says of an engine that is set cold what it is set to and what follows, as every page and paper of its build does.
 *
 * @param said with the name of who stands for it
 * @param band how a band is written, from mm
 * @example setColdInWords({ figures: [], foundHot: false, why: 'no water yet', by: 'Ines Ferreira' }, String)
 */
export function setColdInWords(
  { figures, why, by }: SetCold & { readonly by: string },
  band: (min: number, max: number) => string,
): string {
  const said = (provisional: boolean) =>
    figures
      .filter((each) => each.provisional === provisional)
      .map(({ role, min, max }) => `${ROLE_WORDS[role]} ${band(min, max)}`)
      .join(', ');
  const [printed, provisional] = [said(false), said(true)];
  return [
    ...(printed === '' ? [] : [`Set cold to the maker’s cold figures: ${printed}.`]),
    ...(provisional === '' ? [] : [`Set cold, PROVISIONAL: ${provisional}, on the loose side.`]),
    `It cannot be run: ${why}. ${by} stands for it. Its gaps are measured hot before it goes into service.`,
  ].join(' ');
}
