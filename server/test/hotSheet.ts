import { randomUUID } from 'node:crypto';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { NewSheet, SheetRevision } from '@zero-lash/contract/sheets';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { BENCH, type TestShop } from './shop.ts';
import { Work } from './worked.ts';

/** What the sheet of a hot engine prints here; mm. */
export const HOT = {
  intake: [0.15, 0.2],
  exhaust: [0.2, 0.25],
  cold: { intake: [0.13, 0.18], exhaust: [0.18, 0.23] },
} as const;

/** A build of a single that is measured hot, whose maker prints cold figures for the roles that are named. */
export async function hotEngine(shop: TestShop, printed: readonly ('intake' | 'exhaust')[]): Promise<Work> {
  const { body } = DEMO_SHEETS.sawSingle as { readonly body: NewSheet['body'] };
  const [row] = body.limits;
  const limits = (['intake', 'exhaust'] as const).map((role) => {
    const [min, max] = HOT[role];
    const [coldMin, coldMax] = HOT.cold[role];
    const also = printed.includes(role)
      ? [
          {
            kind: 'other-condition',
            min: coldMin,
            max: coldMax,
            figure: null,
            asWritten: `${role} cold`,
          },
        ]
      : [];
    return { ...row, role, min, max, figure: null, asWritten: '', also, allowance: null };
  });
  const { body: draft } = await shop.call<SheetRevision>(BENCH, 'POST', 'sheets', {
    ...{ maker: 'Quillmere', name: `C4 Crossing ${randomUUID().slice(0, 8)}` },
    body: { ...body, limits, condition: 'hot', temperature: { from: 70, to: 90 } },
  });
  const { body: sheet } = await shop.call<SheetRevision>(
    'Osk Velland',
    'POST',
    `sheet-revisions/${draft.id}/publication`,
    { version: draft.version },
  );
  const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: `Crossing ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 40 },
    sheetId: sheet.sheetId,
  });
  return Work.on(shop, '', { engineId: engine.id, revisionId: sheet.id });
}
