import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { PositionSchool } from '@zero-lash/core/turning';
import { drawPartsList, type PartsListPaper } from '../parts/partsListPaper.ts';
import { drawStopCard } from '../sheets/stopCard.ts';

/** Everything that is drawn as a PDF, by its name, with what it is drawn from. */
export interface Paper {
  readonly 'stop-card': { readonly sheet: SheetRevision; readonly school: PositionSchool };
  readonly 'parts-list': PartsListPaper;
}

const DRAW: { readonly [Name in keyof Paper]: (from: Paper[Name]) => Promise<Uint8Array> } = {
  'stop-card': ({ sheet, school }) => drawStopCard(sheet, school),
  'parts-list': drawPartsList,
};

/** What the thread for papers does with one job: `Papers` calls it. */
export default function draw<Name extends keyof Paper>({
  name,
  from,
}: {
  readonly name: Name;
  readonly from: Paper[Name];
}): Promise<Uint8Array> {
  return DRAW[name](from);
}
