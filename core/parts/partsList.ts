import { PARTS, type PartDisposition } from '../wear/index.ts';
import { ledgerOf, wantedParts, type LedgerLine, type WantsAtHand } from './ledger.ts';

/** How far a part is on its way. */
export const ORDER_WORDS = {
  none: 'to decide',
  'to-order': 'to order',
  ordered: 'ordered',
  'in-hand': 'in hand',
  fitted: 'fitted',
} as const;
export type OrderState = keyof typeof ORDER_WORDS;

/** A line of a build's parts list. */
export interface PartsListLine {
  readonly name: string;
  readonly place: string;
  readonly count: number;
  readonly state: OrderState;
  readonly reason: string;
}

/**
 * Lists what a build replaces and what it wants at hand, with why. Spares that are at hand, counted as they lie there, are in
 * hand; the rest of them is to be ordered. A seal that is used again wants no new one; one that is replaced and counted among
 * the spares is there once.
 *
 * @example partsList([], ledger).length // 0
 */
export function partsList(
  fates: readonly PartDisposition[],
  ledger: readonly LedgerLine[],
): readonly PartsListLine[] {
  const seals = new Map(
    fates.filter(({ part }) => part === 'seal').map((fate) => [fate.place.toLowerCase(), fate]),
  );
  const wanted = ledger.filter(
    ({ group, expected, out, name }) =>
      group === 'wanted' && expected > 0 && out !== null && seals.get(name.toLowerCase())?.verdict !== 'keep',
  );
  const counted = new Set(wanted.map(({ name }) => name.toLowerCase()));
  const worn = fates
    // a cylinder that is low is found out about: no part of that name is ordered
    .filter(({ part, verdict }) => verdict === 'replace' && part !== 'cylinder')
    .filter(({ part, place }) => part !== 'seal' || !counted.has(place.toLowerCase()))
    .map(({ part, place, decided, reasons }) => ({
      name: part === 'seal' ? place : PARTS[part].title,
      place: part === 'seal' ? '' : place,
      count: 1,
      state: decided?.order ?? 'none',
      reason: reasons.join('; '),
    }));
  const atHand = wanted.flatMap(({ name, expected, out, note }): PartsListLine[] => {
    const reason = seals.get(name.toLowerCase())?.reasons.join('; ') || note;
    const line = { name, place: '', reason };
    const missing = expected - out!;
    return [
      ...(out! > 0 ? [{ ...line, count: Math.min(out!, expected), state: 'in-hand' as const }] : []),
      ...(missing > 0 ? [{ ...line, count: missing, state: 'to-order' as const }] : []),
    ];
  });
  return [...worn, ...atHand];
}

/**
 * Lists the parts of a build from its sheet, what is worn, and the lines of the count as they stand, by key.
 *
 * Rule: only what is wanted at hand is listed from the count; what was taken off and kept is no part to get.
 *
 * @example partsListOf(sheet, [], new Map()).map(partsListRow) // []
 */
export function partsListOf(
  sheet: WantsAtHand,
  fates: readonly PartDisposition[],
  counted: ReadonlyMap<string, { readonly line: LedgerLine }>,
): readonly PartsListLine[] {
  return partsList(fates, ledgerOf(wantedParts(sheet), counted));
}

/** A line of a parts list in words: part, place, count, state, why. */
export function partsListRow({ name, place, count, state, reason }: PartsListLine): readonly string[] {
  return [name, place, String(count), ORDER_WORDS[state], reason];
}
