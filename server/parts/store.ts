import type { BuildHead } from '@zero-lash/contract/builds';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { currentLines } from '@zero-lash/core/builds';
import { ledgerKey, partsListOf, partsListRow } from '@zero-lash/core/parts';
import { aimsOutside, setColdInWords } from '@zero-lash/core/setting';
import { resolveLimits, ROLE_WORDS } from '@zero-lash/core/sheets';
import { partDispositions, wearSheetOf } from '@zero-lash/core/wear';
import { dayInWords } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { readHead } from '../builds/read.ts';
import { dayIn, shopZone } from '../clock.ts';
import { findRevision } from '../sheets/read.ts';
import type { ListPaper } from '../papers/listPaper.ts';

/** What every paper of a build says, where it is set to anything but its sheet's figures; empty where it is not. */
export const departsInWords = (
  limits: SheetRevision['limits'],
  head: Pick<BuildHead, 'aim' | 'ownAims' | 'singleRule' | 'setCold'>,
): string =>
  [
    aimedOutside(limits, head),
    head.setCold ? setColdInWords(head.setCold, (min, max) => `${min}–${max} mm`) : '',
  ]
    .filter(Boolean)
    .join(' ');

function aimedOutside(
  limits: SheetRevision['limits'],
  { aim, ownAims, singleRule }: Pick<BuildHead, 'aim' | 'ownAims' | 'singleRule'>,
): string {
  const outside =
    aim === 'own' && ownAims ? aimsOutside(resolveLimits(limits, singleRule), ownAims.figures) : [];
  if (outside.length === 0) return '';
  const figures = outside.map(({ role, target }) => `${ROLE_WORDS[role]} ${target} mm`).join(', ');
  return `Aimed outside the maker's band: ${figures}, because: ${ownAims!.reason}. ${ownAims!.by} stands for it.`;
}

/** Where each column begins, and how wide it is. */
const COLUMNS = [
  { title: 'Part', left: 0, width: 130 },
  { title: 'Place', left: 135, width: 70 },
  { title: 'Count', left: 210, width: 40 },
  { title: 'State', left: 255, width: 60 },
  { title: 'Why', left: 320, width: 191 },
];

/** What a build replaces and wants, as it is printed. */
export async function readPartsList(db: Knex, buildId: string): Promise<ListPaper> {
  const { rows: head } = await readHead(db, buildId);
  const sheet = await findRevision(db, head.revisionId);
  const wear = wearSheetOf(await readEntries(db, buildId, 'wear'), sheet.wearLimits);
  const counted = currentLines(await readEntries(db, buildId, 'ledger'), ledgerKey);
  const departs = departsInWords(sheet.limits, head);
  const on = dayIn(await shopZone(db));
  return {
    title: `Parts for ${head.engine.name}`,
    under: `Build ${head.number} · ${sheet.maker} ${sheet.name}, revision ${sheet.number} · ${dayInWords(on)}`,
    notes: departs === '' ? [] : [departs],
    tables: [
      {
        columns: COLUMNS,
        rows: partsListOf(sheet, partDispositions(wear, sheet.pattern), counted).map(partsListRow),
      },
    ],
    empty: 'Nothing is replaced, and nothing is wanted.',
  };
}
