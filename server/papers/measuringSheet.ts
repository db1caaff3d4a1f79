import type { RoleLimits, SheetRevision } from '@zero-lash/contract/sheets';
import {
  formatInterval,
  formatLength,
  systemOf,
  tenthsFromMm,
  unitShown,
  type ShopUnit,
} from '@zero-lash/core/length';
import type { EffectiveLimits } from '@zero-lash/core/setting';
import { bandInWords, lashPoints, makersName, ROLE_WORDS } from '@zero-lash/core/sheets';
import { planStops, POSITION_SCHOOLS, wayToStop, type PositionSchool } from '@zero-lash/core/turning';
import { FADED, HAIRLINE, INK, MARGIN, Paper, write } from './paper.ts';

/** What a blank measuring sheet is printed from. */
export interface MeasuringSheetPaper {
  readonly engine: string;
  readonly build: string;
  readonly sheet: Pick<SheetRevision, 'pattern' | 'maker' | 'name' | 'number' | 'condition' | 'system'> & {
    readonly limits: readonly EffectiveLimits<RoleLimits>[];
  };
  /** where it is aimed outside the maker's band, and who stands for that; empty where it is not */
  readonly caution: string;
  readonly school: PositionSchool;
  readonly unit: ShopUnit;
}

const ROW = 25;
/** Letters of a name that are written large. */
const SHORT_NAME = 6;
/** Where each box of a row begins, and how wide it is. */
const BOXES = [
  { title: 'goes', left: 214, width: 84 },
  { title: 'won’t', left: 304, width: 84 },
  { title: 'again', left: 394, width: 117 },
] as const;

/**
 * Draws a blank measuring sheet: every point in the order of its stops, with boxes for a pencil and oily hands; it is typed in
 * straight down afterwards. A4, upright.
 */
export async function drawMeasuringSheet(from: MeasuringSheetPaper): Promise<Buffer> {
  const { engine, build, sheet, caution, school, unit } = from;
  const { pattern, limits } = sheet;
  const plan = planStops(pattern, school);
  const points = new Map(lashPoints(pattern).map((point) => [point.key, point]));
  const paper = new Paper(`Measuring sheet, ${engine}`);
  const { pdf } = paper;
  paper.heading(`Measuring sheet: ${engine}`);
  paper.line(
    `${build} · ${sheet.maker} ${sheet.name}, revision ${sheet.number} · measured ${sheet.condition} · ${unit} · ${POSITION_SCHOOLS.find(({ key }) => key === school)!.name}`,
    { size: 9.5, colour: FADED },
  );
  paper.line(
    `Measured by ______________________   Day ______________   Engine, ${unitShown('°C', { length: unit, system: systemOf(unit, sheet.system) })} ________   Round ____________`,
    {
      size: 10.5,
    },
  );
  if (caution !== '') paper.line(caution, { size: 10.5, weight: 'bold' });
  const stops =
    plan.stops.length > 0
      ? plan.stops.map((stop, index) => ({
          said: `Stop ${index + 1}: ${wayToStop(pattern, stop, plan.stops[index - 1]?.angle ?? null)}`,
          keys: stop.points,
        }))
      : [{ said: 'Each cam turned by itself, its lobe straight away', keys: [...points.keys()] }];
  for (const { said, keys } of stops) {
    paper.room(60);
    pdf.moveDown(0.5);
    paper.heading(said, 2);
    for (const key of keys) {
      paper.room(ROW + 4);
      const { role } = points.get(key)!;
      const band = limits.find((each) => each.role === role);
      const top = pdf.y;
      const name = makersName(pattern, key);
      const interval = (min: number, max: number) =>
        formatInterval({ lo: tenthsFromMm(min), hi: tenthsFromMm(max) }, unit);
      const words = band
        ? bandInWords(band, interval, (mm) => formatLength(tenthsFromMm(mm), unit))
        : 'limits to come';
      // whoever measures with a pencil has to know what may be left alone, too
      const alone = band?.asFound
        ? `, left alone ${interval(band.asFound.min, band.asFound.max)}; set to`
        : '';
      const twoLines = (band?.figure ?? null) !== null || alone !== '';
      paper.part('P', () => {
        write(pdf, name ?? key, {
          // ours stands under the maker's, which may be a word
          ...{ size: (name ?? '').length > SHORT_NAME ? 9 : 14, weight: 'bold', width: 64 },
          at: { x: MARGIN, y: top + (name ? 1 : 5) },
        });
        if (name) write(pdf, key, { size: 8, colour: FADED, at: { x: MARGIN, y: top + 15 }, width: 60 });
        write(pdf, `${ROLE_WORDS[role]}${alone}${twoLines ? '\n' : ', '}${words}`, {
          size: twoLines ? 8 : 10,
          at: { x: MARGIN + 66, y: top + (twoLines ? 3 : 8) },
          width: 144,
        });
      });
      pdf.markContent('Artifact', { type: 'Layout' });
      for (const { title, left, width } of BOXES) {
        pdf
          .lineWidth(0.8)
          .rect(MARGIN + left, top + 2, width, ROW - 5)
          .stroke(INK);
        write(pdf, title, { size: 7, colour: HAIRLINE, at: { x: MARGIN + left + 3, y: top + 3 }, width: 40 });
      }
      pdf.endMarkedContent();
      pdf.x = MARGIN;
      pdf.y = top + ROW;
    }
  }
  paper.room(30);
  pdf.moveDown(0.6);
  paper.line(
    'Two figures: the blade that goes and the one that will not. Turn in the running direction only. Measured off its base circle a gap proves nothing.',
    { size: 9.5, colour: FADED },
  );
  return paper.done();
}
