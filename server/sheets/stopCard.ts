import type { SheetRevision } from '@zero-lash/contract/sheets';
import { lashPoints } from '@zero-lash/core/sheets';
import {
  marginOf,
  arcsOf,
  bandsOf,
  layOutWheel,
  onWheel,
  planStops,
  pointsInWords,
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
import { BRASS, FADED, HAIRLINE, INK, MARGIN, Paper, write, type Pdf } from '../papers/paper.ts';

const RADIUS = 120;

/**
 * Draws the stop card for the wall: the plan, the wheel, the table. A4, upright.
 *
 * @returns the PDF's bytes
 */
export async function drawStopCard(sheet: SheetRevision, school: PositionSchool): Promise<Buffer> {
  const paper = new Paper(`Stops, ${sheet.maker} ${sheet.name}`);
  const plan = planStops(sheet.pattern, school);
  drawHead(paper, sheet, school);
  paper.figure(`Two turns of the crank with ${plan.stops.length} stops on them`, () =>
    drawWheel(paper.pdf, sheet, plan),
  );
  drawPlan(paper, sheet, plan);
  drawTable(paper, sheet, plan);
  drawFoot(paper);
  return paper.done();
}

function drawHead(paper: Paper, sheet: SheetRevision, school: PositionSchool): void {
  const { name, line } = POSITION_SCHOOLS.find(({ key }) => key === school)!;
  paper.heading(`Where to turn: ${sheet.maker} ${sheet.name}`);
  paper.line(`${name}. ${line}`, { size: 10, colour: FADED });
  paper.line(
    `Turns ${turningInWords(sheet.pattern)}. Revision ${sheet.number}, ${sheet.status}; ${sheet.source.manual}${sheet.source.page && `, page ${sheet.source.page}`}.`,
    { size: 10, colour: FADED },
  );
  paper.pdf.moveDown(0.6);
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
    write(pdf, String(index + 1), {
      ...{ size: 9, weight: 'bold', width: 14, align: 'center' },
      at: { x: label.x - 7, y: label.y - 5.5 },
    });
  });
  const small = { size: 8, colour: FADED, align: 'center' } as const;
  write(pdf, 'first turn inside', { ...small, width: 80, at: { x: -40, y: -9 } });
  write(pdf, 'second outside', { ...small, width: 80, at: { x: -40, y: 1 } });
  pdf.restore();
  write(pdf, 'dark: intake; brass: exhaust; dashed: brake rocker', {
    ...{ ...small, width: RADIUS * 2 },
    at: { x: centre.x - RADIUS, y: centre.y + RADIUS + 14 },
  });
  pdf.x = MARGIN;
  pdf.y = top;
}

function drawPlan(paper: Paper, { pattern }: SheetRevision, plan: StopPlan): void {
  const { pdf } = paper;
  const width = pdf.page.width - 2 * MARGIN - RADIUS * 2 - 30;
  const wheelEnds = pdf.y + RADIUS * 2 + 50;
  plan.stops.forEach((stop, index) => {
    const before = plan.stops[index - 1];
    const text = stopText(pattern, stop, before?.angle ?? null);
    paper.room(70);
    const room = { width: pdf.y < wheelEnds ? width : pdf.page.width - 2 * MARGIN };
    pdf.x = MARGIN;
    paper.line(`${index + 1}. ${text.way}`, { ...room, weight: 'bold' });
    paper.line(`Do: ${pointsInWords(pattern, stop.points, '  ')}`, { ...room, size: 10 });
    paper.line(`Signs: ${text.signs}.`, { ...room, size: 9, colour: FADED });
    pdf.moveDown(0.5);
  });
  if (plan.unreachable.length > 0)
    paper.line(`Not reached this way: ${pointsInWords(pattern, plan.unreachable)}`, { width, size: 10 });
  pdf.y = Math.max(pdf.y, wheelEnds);
}

function stopText(pattern: SheetRevision['pattern'], stop: PlannedStop, from: number | null) {
  return { way: wayToStop(pattern, stop, from), signs: signsInWords(pattern, stop).slice(0, -1).join('; ') };
}

function drawTable(paper: Paper, { pattern }: SheetRevision, plan: StopPlan): void {
  const { stops } = stopTable({
    cylinders: pattern.cylinders,
    points: lashPoints(pattern),
    events: pattern.timing,
    angles: plan.stops.map(({ angle }) => angle),
    margin: marginOf(pattern),
  });
  paper.room(60);
  paper.pdf.x = MARGIN;
  paper.heading('May be measured at each stop', 2);
  for (const [index, { angle, closed }] of stops.entries()) {
    paper.room(0);
    const turn = angle >= TURN ? 'second turn' : 'first turn';
    paper.line(
      `${index + 1}   ${Math.round((angle % TURN) * 10) / 10}°, ${turn}:  ${pointsInWords(pattern, closed, '  ')}`,
      {
        size: 9,
      },
    );
  }
  paper.pdf.moveDown(0.6);
}

function drawFoot(paper: Paper): void {
  paper.line(
    'Cold and unable to start: ignition, fuel and battery isolated, hands clear of belts and fans. Gone past a mark: go back past it and come up to it again in the running direction. Any resistance you did not expect: stop, go back, find out why. The maker’s manual governs.',
    { size: 9, colour: FADED },
  );
}
