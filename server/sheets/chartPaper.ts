import type { SheetRevision } from '@zero-lash/contract/sheets';
import { formatLength, tenthsFromMm } from '@zero-lash/core/length';
import { roleChart } from '@zero-lash/core/setting';
import { resolveLimits, ROLE_WORDS, type Role, type SingleRule } from '@zero-lash/core/sheets';
import type { ListPaper } from '../papers/listPaper.ts';
import { Refusal } from '../plugins/errors.ts';

const FIRST = 62;
const ACROSS = 690;
/** More than these beside one another break their figures in two. */
const MOST_COLUMNS = 25;

/**
 * A chart of which piece to fit for one role of a sheet, measured down and fitted across, as it is printed.
 *
 * @param rule the shop's band round one figure; null where it has none
 * @throws Refusal `not_found` where the role is not set by a graded piece
 */
export function chartPaper(sheet: SheetRevision, role: Role, rule: SingleRule | null): ListPaper {
  const chart = roleChart(sheet.pattern, role, resolveLimits(sheet.limits, rule));
  if (!chart)
    throw new Refusal('not_found', { detail: 'That role is not set by a graded piece on this sheet.' });
  const { installed: sizes, target } = chart;
  const mm = (value: number) => formatLength(tenthsFromMm(value), 'mm');
  const each = Math.ceil(sizes.length / Math.ceil(sizes.length / MOST_COLUMNS));
  const width = (ACROSS - FIRST) / each;
  const tables = Array.from({ length: Math.ceil(sizes.length / each) }, (_, part) => {
    const [from, to] = [part * each, (part + 1) * each];
    return {
      columns: [
        { title: 'Gap', left: 0, width: FIRST },
        ...sizes
          .slice(from, to)
          .map((size, index) => ({ title: mm(size), left: FIRST + index * width, width })),
      ],
      rows: chart.clearances.map((gap, row) => [
        `${mm(gap.from)}–${mm(gap.to)}`,
        ...chart.rows[row]!.slice(from, to).map((size) =>
          size === null ? '–' : size === 'keep' ? 'keep' : mm(size),
        ),
      ]),
    };
  });
  return {
    title: `Piece to fit, ${ROLE_WORDS[role]}: ${sheet.maker} ${sheet.name}`,
    under: `Revision ${sheet.number} · mm · measured down, fitted now across · to ${mm(target)}`,
    notes: [
      'Where the maker prints a chart of his own it governs. A stroke: no size made brings it in. Measure again after fitting.',
    ],
    tables,
    empty: '',
    wide: true,
  };
}
