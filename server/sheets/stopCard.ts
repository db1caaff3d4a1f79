import type { SheetRevision } from '@zero-lash/contract/sheets';
import { lashPoints } from '@zero-lash/core/sheets';
import {
  marginOf,
  arcsOf,
  bandsOf,
  layOutWheel,
  onWheel,
  planStops,
  radiusIn,
  POSITION_SCHOOLS,
  ringPath,
  signsInWords,
  stopTable,
  TURN,
  turningInWords,
  wayToStop,
  type PlannedStop,
  type PositionSchool,
  type StopPlan,
} from '@zero-lash/core/turning';
import PDFDocument from 'pdfkit';

const INK = '#2c2a26';
const FADED = '#625c50';
const BRASS = '#7c5c12';
const HAIRLINE = '#aea48e';
const MARGIN = 42;
const RADIUS = 120;
const PAGE_BOTTOM = 780;

type Pdf = InstanceType<typeof PDFDocument>;

/**
 * Draws the stop card for the wall: the plan, the wheel, the table. A4, upright.
 *
 * @returns the PDF's bytes
 */
export async function drawStopCard(sheet: SheetRevision, school: PositionSchool): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    info: { Title: `Stops, ${sheet.maker} ${sheet.name}` },
  });
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve) => pdf.once('end', resolve));
  const plan = planStops(sheet.pattern, school);
  drawHead(pdf, sheet, school);
  drawWheel(pdf, sheet, plan);
  drawPlan(pdf, sheet, plan);
  drawTable(pdf, sheet, plan);
  drawFoot(pdf);
  pdf.end();
  await ended;
  return Buffer.concat(chunks);
}

function drawHead(pdf: Pdf, sheet: SheetRevision, school: PositionSchool): void {
  const { name, line } = POSITION_SCHOOLS.find(({ key }) => key === school)!;
  pdf.fillColor(INK).font('Helvetica-Bold').fontSize(20).text(`Where to turn: ${sheet.maker} ${sheet.name}`);
  pdf
    .font('Helvetica')
    .fontSize(10)
    .fillColor(FADED)
    .text(`${name}. ${line}`)
    .text(
      `Turns ${turningInWords(sheet.pattern)}. Revision ${sheet.number}, ${sheet.status}; ${sheet.source.manual}${sheet.source.page && `, page ${sheet.source.page}`}.`,
    );
  pdf.moveDown(0.6);
}

/** The same geometry as the wheel on the screen: the first turn inside, the second round it. */
function drawWheel(pdf: Pdf, { pattern }: SheetRevision, plan: StopPlan): void {
  const top = pdf.y;
  const centre = { x: pdf.page.width - MARGIN - RADIUS, y: top + RADIUS + 12 };
  const bands = bandsOf(RADIUS);
  const tracks = layOutWheel(pattern);
  pdf.save().translate(centre.x, centre.y);
  pdf.lineWidth(0.5).strokeColor(HAIRLINE);
  for (const [inner, outer] of bands.turns) pdf.circle(0, 0, inner).circle(0, 0, outer).stroke();
  pdf.circle(0, 0, bands.pulley).stroke();
  tracks.forEach((track) => {
    const intake = track.role === 'intake';
    pdf.strokeColor(intake ? INK : BRASS).lineWidth(Math.max(0.8, 30 * track.share * 0.8));
    if (track.role === 'brake') pdf.strokeColor(FADED).dash(3, { space: 2 });
    for (const arc of arcsOf(track.from, track.length))
      pdf.path(ringPath(pattern.turns, radiusIn(bands.turns[arc.turn], track.place), arc)).stroke();
    pdf.undash();
  });
  plan.stops.forEach((stop, index) => {
    const [inner, outer] = bands.turns[stop.angle >= TURN ? 1 : 0];
    const [from, to] = [inner - 3, outer + 3].map((radius) => onWheel(pattern.turns, radius, stop.angle));
    pdf.strokeColor(INK).lineWidth(1).moveTo(from!.x, from!.y).lineTo(to!.x, to!.y).stroke();
    const label = onWheel(pattern.turns, outer + 9, stop.angle);
    pdf.circle(label.x, label.y, 7).fillAndStroke('#ffffff', INK);
    pdf
      .fillColor(INK)
      .font('Helvetica-Bold')
      .fontSize(9)
      .text(String(index + 1), label.x - 7, label.y - 3.5, { width: 14, align: 'center', lineBreak: false });
  });
  pdf.fillColor(FADED).font('Helvetica').fontSize(8);
  pdf.text('first turn inside', -40, -9, { width: 80, align: 'center' });
  pdf.text('second outside', -40, 1, { width: 80, align: 'center' });
  pdf.restore();
  pdf.fillColor(FADED).fontSize(8);
  pdf.text('dark: intake; brass: exhaust; dashed: brake rocker', centre.x - RADIUS, centre.y + RADIUS + 14, {
    width: RADIUS * 2,
    align: 'center',
  });
  pdf.x = MARGIN;
  pdf.y = top;
}

function drawPlan(pdf: Pdf, { pattern }: SheetRevision, plan: StopPlan): void {
  const width = pdf.page.width - 2 * MARGIN - RADIUS * 2 - 30;
  const wheelEnds = pdf.y + RADIUS * 2 + 50;
  plan.stops.forEach((stop, index) => {
    const before = plan.stops[index - 1];
    const text = stopText(pattern, stop, before?.angle ?? null);
    if (pdf.y > PAGE_BOTTOM - 70) pdf.addPage();
    const room = pdf.y < wheelEnds ? width : pdf.page.width - 2 * MARGIN;
    pdf
      .fillColor(INK)
      .font('Helvetica-Bold')
      .fontSize(11)
      .text(`${index + 1}. ${text.way}`, MARGIN, pdf.y, { width: room });
    pdf
      .font('Helvetica')
      .fontSize(10)
      .text(`Do: ${stop.points.join('  ')}`, { width: room });
    pdf.fillColor(FADED).fontSize(9).text(`Signs: ${text.signs}.`, { width: room });
    pdf.moveDown(0.5);
  });
  if (plan.unreachable.length > 0)
    pdf
      .fillColor(INK)
      .fontSize(10)
      .text(`Not reached this way: ${plan.unreachable.join(', ')}`, { width });
  pdf.y = Math.max(pdf.y, wheelEnds);
}

function stopText(pattern: SheetRevision['pattern'], stop: PlannedStop, from: number | null) {
  return { way: wayToStop(pattern, stop, from), signs: signsInWords(stop).slice(0, -1).join('; ') };
}

function drawTable(pdf: Pdf, { pattern }: SheetRevision, plan: StopPlan): void {
  const { stops } = stopTable({
    cylinders: pattern.cylinders,
    points: lashPoints(pattern),
    events: pattern.timing,
    angles: plan.stops.map(({ angle }) => angle),
    margin: marginOf(pattern),
  });
  if (pdf.y > PAGE_BOTTOM - 60) pdf.addPage();
  pdf.fillColor(INK).font('Helvetica-Bold').fontSize(11).text('May be measured at each stop', MARGIN, pdf.y);
  for (const [index, { angle, closed }] of stops.entries()) {
    if (pdf.y > PAGE_BOTTOM) pdf.addPage();
    const turn = angle >= TURN ? 'second turn' : 'first turn';
    pdf
      .font('Helvetica')
      .fontSize(9)
      .text(`${index + 1}   ${Math.round((angle % TURN) * 10) / 10}°, ${turn}:  ${closed.join('  ')}`, {
        width: pdf.page.width - 2 * MARGIN,
      });
  }
  pdf.moveDown(0.6);
}

function drawFoot(pdf: Pdf): void {
  pdf
    .fillColor(FADED)
    .fontSize(9)
    .text(
      'Cold and unable to start: ignition, fuel and battery isolated, hands clear of belts and fans. Gone past a mark: go back past it and come up to it again in the running direction. Any resistance you did not expect: stop, go back, find out why. The maker’s manual governs.',
      MARGIN,
      pdf.y,
      { width: pdf.page.width - 2 * MARGIN },
    );
}
