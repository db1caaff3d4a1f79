import { currentLines } from '../entries/index.ts';
import { ledgerKey, type LedgerLine } from '../parts/index.ts';
import { PARTS, partDispositions, wearSheetOf } from '../wear/index.ts';
import { checkSaying } from './stages.ts';
import type { BuildState } from './buildState.ts';

/** What of the wear is not decided, or not measured yet, each in words. */
export interface WearLeft {
  /** broken, or at replace, and nobody says what becomes of it */
  readonly undecided: readonly string[];
  /** fitted new, and its figures are not written down */
  readonly newParts: readonly string[];
}

/**
 * Finds what stands of the wear against going on: parts that are broken or at replace with nobody's decision, and new ones whose
 * figures are not known.
 *
 * Rule: a person decides what is run again; a new part is measured before it is trusted.
 *
 * @example wearLeft(build).undecided // []
 */
export function wearLeft({ wear = [], sheet }: Pick<BuildState, 'wear' | 'sheet'>): WearLeft {
  if (wear.length === 0) return { undecided: [], newParts: [] };
  const fates = partDispositions(wearSheetOf(wear, sheet.wearLimits ?? []), sheet.pattern);
  const named = ({ part, place }: (typeof fates)[number]) =>
    part === 'seal' ? place : `${PARTS[part].title} ${place}`;
  return {
    undecided: fates
      .filter(({ verdict, decided }) => verdict === 'replace' && decided === null)
      .map((fate) => `${named(fate)}${fate.reasons.length > 0 ? `: ${fate.reasons.join(', ')}` : ''}`),
    newParts: fates
      .filter(({ decided, measureNew }) => decided?.order === 'fitted' && measureNew.length > 0)
      .map((fate) => named(fate)),
  };
}

const COUNTED_OUT = checkSaying('counted-out');

/**
 * Says whether "counted out" is ticked over nothing: no part is counted, and nobody wrote down at the stage why not.
 *
 * @example nothingCounted({ ledger: [], notes: [], ticks }) // true
 */
export function nothingCounted({
  ledger,
  notes,
  ticks,
}: Pick<BuildState, 'ledger' | 'notes' | 'ticks'>): boolean {
  // where it is not asked about there is nothing to say
  if (!ledger || !notes) return false;
  const ticked = ticks.some(
    ({ stage, check, done }) => done && stage === COUNTED_OUT.stage && check === COUNTED_OUT.check,
  );
  const lines = [...currentLines<LedgerLine>(ledger, ledgerKey).values()];
  const counted = lines.some(({ line }) => !line.dropped && (line.out ?? 0) > 0);
  return ticked && !counted && !notes.some(({ stage }) => stage === COUNTED_OUT.stage);
}
