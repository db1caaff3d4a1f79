/** Who wrote, published and read a revision of a spec sheet, by name. */
export interface SheetReaders {
  readonly checkedBy: string | null;
  readonly writers: readonly string[];
  readonly readBy: string | null;
}

/**
 * Whether a revision was published by one who wrote at it, and nobody else has held it against its source: so it is in a shop of one
 * person, until there is a second.
 *
 * @example isUnread({ checkedBy: 'Osk Velland', writers: ['Osk Velland'], readBy: null }) // true
 */
export const isUnread = ({ checkedBy, writers, readBy }: SheetReaders): boolean =>
  checkedBy !== null && writers.includes(checkedBy) && readBy === null;
