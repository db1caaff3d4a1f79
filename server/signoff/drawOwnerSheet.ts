import { VERDICT_WORDS } from '@zero-lash/core/measuring';
import type { OwnerPoint, OwnerSheetPaper } from './ownerSheet.ts';
import { BRASS, FADED, HAIRLINE, INK, MARGIN, Paper, TIGHT, write, type Pdf } from '../papers/paper.ts';

const WASH = '#ebe3d0';
const WIDTH = 511;
const MOST_CELL = 46;
const MOST_HEAD = 200;
const COLUMNS = [
  { title: 'Point', left: 0, width: 44 },
  { title: 'Limits', left: 48, width: 66 },
  { title: 'As found', left: 118, width: 96 },
  { title: 'Done', left: 218, width: 112 },
  { title: 'Proved', left: 334, width: 92 },
] as const;
const BAR = { left: 430, width: 81 };
const LINE = 16.5;

/** Draws an owner's sheet: what was found and set, worn and replaced, proved and signed. A4, upright; one or two pages. */
export async function drawOwnerSheet(sheet: OwnerSheetPaper): Promise<Buffer> {
  const paper = new Paper(`${sheet.engine}: what was done`);
  paper.heading(sheet.engine);
  paper.line(sheet.about.join(' · '), { size: 10.5 });
  paper.line(`${sheet.build} · ${sheet.sheet}`, { size: 9.5, colour: FADED });
  paper.line(sheet.complaint, { size: 11 });
  paper.line(sheet.signed, { size: 11, weight: 'bold' });
  if (sheet.statement !== '') paper.line(`“${sheet.statement}”`, { size: 10.5 });
  for (const text of sheet.added) paper.line(text, { size: 10.5 });
  drawHead(paper, sheet);
  paper.heading(`Clearances, ${sheet.unit}`, 2);
  drawPoints(paper, sheet.points);
  listed(paper, 'Found worn', sheet.worn, [
    { title: 'Part', left: 0, width: 110 },
    { title: 'Place', left: 114, width: 60 },
    { title: 'Said', left: 178, width: 56 },
    { title: 'Why', left: 238, width: 273 },
  ]);
  listed(paper, 'Replaced', sheet.replaced, [
    { title: 'Part', left: 0, width: 130 },
    { title: 'Place', left: 134, width: 60 },
    { title: 'Count', left: 198, width: 40 },
    { title: '', left: 242, width: 56 },
    { title: 'Why', left: 302, width: 209 },
  ]);
  paper.room(90);
  paper.pdf.moveDown(0.6);
  paper.line(sheet.next, { size: 11.5, weight: 'bold' });
  for (const caution of sheet.cautions) paper.line(caution, { size: 9.5, colour: FADED });
  return paper.done();
}

function listed(
  paper: Paper,
  title: string,
  rows: readonly (readonly string[])[],
  columns: readonly { readonly title: string; readonly left: number; readonly width: number }[],
): void {
  if (rows.length === 0) return;
  paper.room(60);
  paper.pdf.moveDown(0.5);
  paper.heading(title, 2);
  paper.table(columns, rows, 9.5);
}

/** The head from above, each point with the gap it is proved with. */
function drawHead(paper: Paper, { head, points }: OwnerSheetPaper): void {
  const { pdf } = paper;
  const cell = Math.min(MOST_CELL, WIDTH / head.width, MOST_HEAD / head.height);
  const left = MARGIN + (WIDTH - head.width * cell) / 2;
  const top = pdf.y + 8;
  const of = new Map(points.map((point) => [point.key, point]));
  const proved = points.filter((point) => point.proved).length;
  paper.figure(`The head from above: ${proved} of ${points.length} points with the gap proved`, () => {
    pdf.lineWidth(0.6);
    for (const { x, y, width, height } of head.heads)
      pdf.roundedRect(left + x * cell, top + y * cell, width * cell, height * cell, 5).stroke(FADED);
    for (const { x, y, radius } of head.bores)
      pdf.circle(left + x * cell, top + y * cell, radius * cell).stroke(HAIRLINE);
    for (const { point, x, y } of head.places) {
      const shown = of.get(point.key)!;
      const half = (cell - 3) / 2;
      const [cx, cy] = [left + x * cell, top + y * cell];
      const out = shown.proved !== null && shown.proved.verdict !== 'in-spec';
      pdf
        .roundedRect(
          cx - half,
          cy - half,
          half * 2,
          half * 2,
          point.role.startsWith('intake') ? half * 0.7 : 2,
        )
        .fillAndStroke(shown.proved ? WASH : '#ffffff', out ? TIGHT : INK);
      const size = Math.max(5, Math.min(9, cell / 5));
      write(pdf, shown.name, {
        ...{ size, weight: 'bold', width: half * 2, align: 'center' },
        at: { x: cx - half, y: cy - size * 1.15 },
      });
      if (shown.proved)
        write(pdf, shown.proved.said, {
          ...{ size: size * 0.85, width: half * 2 + 4, align: 'center' },
          at: { x: cx - half - 2, y: cy + size * 0.1 },
        });
    }
  });
  pdf.x = MARGIN;
  pdf.y = top + head.height * cell + 12;
}

/** Every point in a row with its bar. */
function drawPoints(paper: Paper, points: readonly OwnerPoint[]): void {
  const gap = (each: OwnerPoint['found']) => (each ? `${each.said} ${VERDICT_WORDS[each.verdict]}` : '–');
  paper.table(
    COLUMNS,
    points.map((point) => [
      point.name,
      point.limits,
      gap(point.found),
      point.done,
      `${gap(point.proved)}${point.onLimit ? ', by the allowance' : ''}${point.leftAsFound ? ', as found' : ''}${point.letStand ? ', left as is' : ''}`,
    ]),
    9,
    (row, y) => {
      const point = points[row];
      if (point) drawBar(paper.pdf, point, y);
    },
  );
}

/** The band, and what is known of the gap in it: tightness is told by wedges inward, looseness by wedges outward. */
function drawBar(pdf: Pdf, { min, max, proved }: OwnerPoint, y: number): void {
  const left = MARGIN + BAR.left;
  const band = max - min;
  const from = Math.max(0, min - band * 1.2);
  const to = max + band * 1.2;
  const at = (mm: number) => left + (Math.min(to, Math.max(from, mm)) - from) * (BAR.width / (to - from));
  const middle = y + LINE / 2 - 1;
  pdf
    .lineWidth(0.5)
    .moveTo(left, middle)
    .lineTo(left + BAR.width, middle)
    .stroke(HAIRLINE);
  pdf.rect(at(min), middle - 4, at(max) - at(min), 8).fill(WASH);
  for (const limit of [min, max])
    pdf
      .moveTo(at(limit), middle - 5.5)
      .lineTo(at(limit), middle + 5.5)
      .stroke(INK);
  if (!proved) return;
  const lo = at(proved.lo);
  const hi = at(proved.hi ?? to);
  if (proved.verdict === 'in-spec') pdf.rect(lo, middle - 2.6, Math.max(2, hi - lo), 5.2).fill(INK);
  else {
    const colour = proved.verdict === 'tight' ? TIGHT : BRASS;
    const inward = proved.verdict === 'tight' ? 1 : -1;
    for (const [x, side] of [
      [lo, -1],
      [hi, 1],
    ] as const)
      pdf
        .polygon([x, middle], [x + side * inward * 4, middle - 3.4], [x + side * inward * 4, middle + 3.4])
        .fill(colour);
  }
}
