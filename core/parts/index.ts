export {
  expectedParts,
  imbalances,
  LEDGER_GROUPS,
  ledgerKey,
  ledgerOf,
  wantedParts,
  type ExpectedPart,
  type Imbalance,
  type LedgerGroup,
  type LedgerLine,
} from './ledger.ts';
export { layOutTray, type Tray, type TrayPlace } from './tray.ts';
export { ORDER_WORDS, partsList, type OrderState, type PartsListLine } from './partsList.ts';
