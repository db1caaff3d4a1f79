import type { LedgerGroup, LedgerLine } from './ledger.ts';

/** A numbered place on a tray. */
export interface TrayPlace {
  readonly number: number;
  readonly line: LedgerLine;
  readonly column: number;
  readonly row: number;
}

/** Where counted parts are laid. */
export interface Tray {
  readonly columns: number;
  readonly rows: number;
  readonly places: readonly TrayPlace[];
}

const COLUMNS = 8;

/**
 * Lays the parts of one group out on a tray, in the order of the list, in numbered places from the front left.
 *
 * @example layOutTray(ledger, 'caps').places[0] // { number: 1, column: 0, row: 0, line: … }
 */
export function layOutTray(ledger: readonly LedgerLine[], group: LedgerGroup): Tray {
  const places = ledger
    .filter((line) => line.group === group)
    .map((line, index) => ({
      number: index + 1,
      line,
      column: index % COLUMNS,
      row: Math.floor(index / COLUMNS),
    }));
  return {
    columns: Math.max(1, Math.min(COLUMNS, places.length)),
    rows: Math.max(1, Math.ceil(places.length / COLUMNS)),
    places,
  };
}
