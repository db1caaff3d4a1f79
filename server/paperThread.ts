import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { PositionSchool } from '@zero-lash/core/turning';
import type { OwnerSheetPaper } from './signoff/ownerSheet.ts';
import { drawOwnerSheet } from './signoff/drawOwnerSheet.ts';
import { drawLabel, type LabelPaper } from './papers/label.ts';
import { drawMeasuringSheet, type MeasuringSheetPaper } from './papers/measuringSheet.ts';
import { loadFaces } from './papers/faces.ts';
import { drawList, type ListPaper } from './papers/listPaper.ts';
import { drawStopCard } from './sheets/stopCard.ts';

/** Everything that is drawn as a PDF, by its name, with what it is drawn from. */
export interface Paper {
  readonly 'stop-card': { readonly sheet: SheetRevision; readonly school: PositionSchool };
  readonly list: ListPaper;
  readonly 'owner-sheet': OwnerSheetPaper;
  readonly 'measuring-sheet': MeasuringSheetPaper;
  readonly label: LabelPaper;
}

const DRAW: { readonly [Name in keyof Paper]: (from: Paper[Name]) => Promise<Uint8Array> } = {
  'stop-card': ({ sheet, school }) => drawStopCard(sheet, school),
  list: drawList,
  'owner-sheet': drawOwnerSheet,
  'measuring-sheet': drawMeasuringSheet,
  label: drawLabel,
};

/** What the thread for papers does with one job: `Papers` calls it. */
export default async function draw<Name extends keyof Paper>({
  name,
  from,
}: {
  readonly name: Name;
  readonly from: Paper[Name];
}): Promise<Uint8Array> {
  await loadFaces(JSON.stringify(from));
  return DRAW[name](from);
}
