import type { SheetRevision } from '@zero-lash/contract/sheets';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { aimFor, chartOf, sizesOf } from '@zero-lash/core/setting';
import { meansFor, ROLE_WORDS, rolesOf, type Role } from '@zero-lash/core/sheets';
import type { ListPaper } from '../papers/listPaper.ts';
import { Refusal } from '../plugins/errors.ts';

const FIRST = 62;
const ACROSS = 690;

/**
 * A chart of which piece to fit for one role of a sheet, measured down and fitted across, as it is printed.
 *
 * @throws Refusal `not_found` where the role is not set by a graded piece
 */
export function chartPaper(sheet: SheetRevision, role: Role): ListPaper {
  const means = rolesOf(sheet.pattern).includes(role) ? meansFor(sheet.pattern, role) : null;
  const limits = sheet.limits.find((each) => each.role === role);
  if (!means || !('sizes' in means) || !limits)
    throw new Refusal('not_found', { detail: 'That role is not set by a graded piece on this sheet.' });
  const sizes = sizesOf(means.sizes).map(mmFromTenths);
  const band = { min: tenthsFromMm(limits.min), max: tenthsFromMm(limits.max) };
  const target = mmFromTenths(aimFor('middle', role, band));
  const chart = chartOf({ spec: limits, target, step: means.sizes.step, sizes });
  const width = (ACROSS - FIRST) / sizes.length;
  const mm = (value: number) => value.toFixed(2);
  return {
    title: `Piece to fit, ${ROLE_WORDS[role]}: ${sheet.maker} ${sheet.name}`,
    under: `Revision ${sheet.number} · mm · measured down, fitted now across · to ${mm(target)}`,
    notes: [
      'Where the maker prints a chart of his own it governs. A stroke: no size made brings it in. Measure again after fitting.',
    ],
    columns: [
      { title: 'Gap', left: 0, width: FIRST },
      ...sizes.map((size, index) => ({ title: mm(size), left: FIRST + index * width, width })),
    ],
    rows: chart.clearances.map(({ from, to }, row) => [
      `${mm(from)}–${mm(to)}`,
      ...chart.rows[row]!.map((size) => (size === null ? '–' : size === 'keep' ? 'keep' : mm(size))),
    ]),
    empty: '',
    wide: true,
  };
}
