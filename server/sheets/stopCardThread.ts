import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { PositionSchool } from '@zero-lash/core/turning';
import { drawStopCard } from './stopCard.ts';

/** What the thread for stop cards does with one job: `StopCards` calls it. */
export default function draw({
  sheet,
  school,
}: {
  readonly sheet: SheetRevision;
  readonly school: PositionSchool;
}): Promise<Uint8Array> {
  return drawStopCard(sheet, school);
}
