import type { SheetFile, SheetSummary } from '@zero-lash/contract/sheets';
import { BENCH, type TestShop } from './shop.ts';

/** Gives a sheet of a single without a meter, as it is sent, looked at by whichever plan is asked for. */
export async function meterless(shop: TestShop, name: string): Promise<(recheckPlan: object[]) => object> {
  const { body: sheets } = await shop.call<SheetSummary[]>(BENCH, 'GET', 'sheets');
  const like = sheets.find((each) => each.name === 'S1 Sawyer')!;
  const { body: file } = await shop.call<SheetFile>(BENCH, 'GET', `sheet-revisions/${like.revisionId}/file`);
  const { format: _, formatVersion: __, name: ___, maker, ...body } = file;
  return (recheckPlan) => ({ name, maker, body: { ...body, usageUnit: 'none', recheckPlan } });
}
