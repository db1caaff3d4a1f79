export {
  expectedParts,
  fasteningsOf,
  isFastening,
  imbalances,
  LEDGER_GROUPS,
  ledgerKey,
  ledgerOf,
  wantedAtHand,
  wantedParts,
  WAYS_ROUND,
  type ExpectedPart,
  type Imbalance,
  type LedgerGroup,
  type LedgerLine,
  type WantedPart,
  type WantsAtHand,
  type WayRound,
} from './ledger.ts';
export { layOutTray, type Tray, type TrayPlace } from './tray.ts';
export {
  ORDER_WORDS,
  partsList,
  partsListOf,
  partsListRow,
  type OrderState,
  type PartsListLine,
} from './partsList.ts';
export { correctionInWords, correctionsOf, STAYS_ON, withKept, type PatternPart } from './patternParts.ts';
