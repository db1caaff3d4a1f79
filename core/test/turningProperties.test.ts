import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import {
  arcsOf,
  CYCLE,
  crankStops,
  firingAngles,
  firingSteps,
  gearAt,
  inCycle,
  layOutWheel,
  mayMeasureAt,
  mayMeasurePoint,
  openSpan,
  parseFiringOrder,
  planStops,
  POSITION_SCHOOLS,
  radiusIn,
  signOf,
  spannedPoints,
  stopTable,
  wayToStop,
  whichTdc,
  stopProgress,
} from '../turning/index.ts';
import { inlineSix } from './patterns.ts';

/** Any engine there may be: one to twelve cylinders, evenly or unevenly firing, either direction, bridged or braked. */
const pattern: fc.Arbitrary<Pattern> = fc
  .record({
    count: fc.integer({ min: 1, max: 12 }),
    steps: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 12, maxLength: 12 }),
    turns: fc.constantFrom('clockwise' as const, 'anticlockwise' as const),
    intake: fc.integer({ min: 1, max: 3 }),
    exhaust: fc.integer({ min: 1, max: 2 }),
    bridged: fc.boolean(),
    closingSide: fc.boolean(),
    braked: fc.boolean(),
    ivoBtdc: fc.integer({ min: 0, max: 40 }),
    ivcAbdc: fc.integer({ min: 20, max: 80 }),
    evoBbdc: fc.integer({ min: 20, max: 80 }),
    evcAtdc: fc.integer({ min: 0, max: 40 }),
    margin: fc.integer({ min: 0, max: 25 }),
    marks: fc.uniqueArray(fc.integer({ min: 0, max: 23 }), { minLength: 1, maxLength: 8 }),
  })
  .map(({ count, steps, turns, intake, exhaust, bridged, closingSide, braked, margin, marks, ...timing }) => {
    const own = steps.slice(0, count);
    const whole = own.reduce((sum, step) => sum + step, 0);
    let at = 0;
    const angles = own.map((step) => {
      const angle = Math.round((at / whole) * CYCLE);
      at += step;
      return angle;
    });
    return {
      ...inlineSix,
      turns,
      cylinders: angles.map((firesAt, index) => ({
        id: String(index + 1),
        bank: 'A' as const,
        place: index + 1,
        firesAt,
      })),
      valves: { intake, exhaust },
      bridges: { intake: bridged, exhaust: bridged },
      closingSide,
      brakes: braked ? [{ cylinder: '1', opens: 640, closes: 780 }] : [],
      timing: { ...timing, assumed: false },
      margin,
      marks: [...new Set(marks.flatMap((mark) => [mark * 15, mark * 15 + 360]))],
    };
  });

const angle = fc.integer({ min: 0, max: CYCLE - 1 });
const V12_TIMING = { ivoBtdc: 14, ivcAbdc: 52, evoBbdc: 54, evcAtdc: 12 };

const OF_CRANK = POSITION_SCHOOLS.filter(({ key }) => key !== 'cam-by-hand');

describe('any engine', () => {
  it('by every school is measured only where its followers are on their base circles', () => {
    fc.assert(
      fc.property(pattern, fc.constantFrom(...OF_CRANK), (engine, { key: school }) => {
        const { stops, unreachable } = planStops(engine, school);
        for (const { angle: at, points } of stops)
          for (const key of points) expect(mayMeasurePoint(engine, key, at), `${key} at ${at}`).toBe(true);
        const done = stops.flatMap(({ points }) => points);
        expect([...done, ...unreachable].sort()).toEqual(
          lashPoints(engine)
            .map(({ key }) => key)
            .sort(),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('with each cam turned by itself has no stop, and no point that cannot be reached', () => {
    fc.assert(
      fc.property(pattern, (engine) => {
        expect(planStops(engine, 'cam-by-hand')).toEqual({ stops: [], unreachable: [] });
      }),
      { numRuns: 10 },
    );
  });

  it('at its marks needs no fewer stops than brute force over the marks finds', () => {
    fc.assert(
      fc.property(pattern, (engine) => {
        const points = lashPoints(engine);
        const input = { cylinders: engine.cylinders, points, events: engine.timing, margin: engine.margin };
        const plan = crankStops({ ...input, marks: engine.marks });
        const reached = points.filter(({ key }) => !plan.unreachable.includes(key));
        const spans = reached.map((point) => openSpan(point, engine.cylinders, engine.timing));
        const masks = engine.marks.map((mark) =>
          spans.reduce(
            (mask, span, bit) =>
              mayMeasureAt(span, engine.margin, mark) ? mask | (1n << BigInt(bit)) : mask,
            0n,
          ),
        );
        const all = (1n << BigInt(reached.length)) - 1n;
        let fewest = Infinity;
        for (let set = 0; set < 1 << masks.length; set += 1) {
          const chosen = masks.filter((_, bit) => set & (1 << bit));
          if (chosen.length < fewest && chosen.reduce((mask, one) => mask | one, 0n) === all)
            fewest = chosen.length;
        }
        expect(plan.count).toBe(fewest);
      }),
      { numRuns: 40 },
    );
  });

  it('of twelve cylinders, all with brake rockers that are closed for a moment only, is planned as well', () => {
    const cylinders = Array.from({ length: 12 }, (_, index) => ({
      id: String(index + 1),
      firesAt: index * 60,
    }));
    const marks = Array.from({ length: 72 }, (_, index) => index * 10);
    const brake = fc.record({
      turnedBy: fc.integer({ min: 0, max: 719 }),
      closedFor: fc.integer({ min: 1, max: 90 }),
    });
    fc.assert(
      fc.property(
        fc.array(brake, { minLength: 8, maxLength: 12 }),
        fc.integer({ min: 0, max: 10 }),
        (brakes, margin) => {
          const points = cylinders.flatMap(({ id }, index) => [
            { key: `${id}I`, cylinder: id, role: 'intake' },
            { key: `${id}E`, cylinder: id, role: 'exhaust' },
            ...brakes.slice(index, index + 1).map(({ turnedBy, closedFor }) => ({
              ...{ key: `${id}B`, cylinder: id, role: 'brake' },
              ...{ opens: turnedBy, closes: turnedBy + CYCLE - closedFor },
            })),
          ]);
          const plan = crankStops({ cylinders, points, events: V12_TIMING, marks, margin });
          const spans = new Map(points.map((point) => [point.key, openSpan(point, cylinders, V12_TIMING)]));
          const servedBy = (key: string) =>
            marks.filter((mark) => mayMeasureAt(spans.get(key)!, margin, mark));
          expect(plan.unreachable).toEqual(
            points.map(({ key }) => key).filter((key) => servedBy(key).length === 0),
          );
          for (const { angle: at, points: done } of plan.stops) {
            expect(marks).toContain(at);
            for (const key of done) expect(mayMeasureAt(spans.get(key)!, margin, at)).toBe(true);
          }
          expect(plan.stops.flatMap(({ points: done }) => done).sort()).toEqual(
            points
              .map(({ key }) => key)
              .filter((key) => !plan.unreachable.includes(key))
              .sort(),
          );
          // points that share no mark need a stop each: fewer than that would be a lie
          const apartFromAll: number[][] = [];
          for (const served of points.map(({ key }) => servedBy(key)).sort((a, b) => a.length - b.length))
            if (
              served.length > 0 &&
              apartFromAll.every((other) => !other.some((mark) => served.includes(mark)))
            )
              apartFromAll.push(served);
          expect(plan.count).toBeGreaterThanOrEqual(apartFromAll.length);
          // and no stop can be left out
          for (const { angle: at } of plan.stops) {
            const others = plan.stops.map(({ angle: other }) => other).filter((other) => other !== at);
            expect(
              points.some(
                ({ key }) => servedBy(key).length > 0 && !others.some((mark) => servedBy(key).includes(mark)),
              ),
            ).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('never measures a point whose open span and margins fill the cycle', () => {
    const span = { start: 100, length: 650 };
    for (let at = 0; at < CYCLE; at += 1) expect(mayMeasureAt(span, 40, at), String(at)).toBe(false);
    expect(mayMeasureAt(span, 35, 65)).toBe(true);
  });

  it('has a stop table that says the same as the valve gear and the wheel', () => {
    fc.assert(
      fc.property(pattern, angle, (engine, at) => {
        const table = stopTable({
          cylinders: engine.cylinders,
          points: lashPoints(engine),
          events: engine.timing,
          angles: [at],
          margin: engine.margin,
        });
        const gear = gearAt(spannedPoints(engine), engine.margin, at);
        expect(gear.filter(({ closed }) => closed).map(({ key }) => key)).toEqual(table.stops[0]!.closed);
        for (const { closed, lift, noseAt } of gear) {
          if (closed) expect(lift).toBe(0);
          expect(Math.abs(noseAt)).toBeLessThanOrEqual(180);
        }
        const onWheel = layOutWheel(engine).filter(
          ({ from, length }) => inCycle(at - from) <= length + 1e-9 || inCycle(at - from) > CYCLE - 1e-9,
        );
        expect(onWheel.flatMap(({ keys }) => keys).sort()).toEqual([...table.stops[0]!.closed].sort());
      }),
      { numRuns: 80 },
    );
  });

  it('has wheel tracks whose pieces add up and stay in their bands', () => {
    fc.assert(
      fc.property(pattern, (engine) => {
        for (const { from, length, place } of layOutWheel(engine)) {
          const arcs = arcsOf(from, length);
          expect(arcs.reduce((sum, arc) => sum + arc.to - arc.from, 0)).toBeCloseTo(length, 6);
          expect(arcs.every((arc) => arc.from >= -1e-9 && arc.to <= 360 + 1e-6)).toBe(true);
          expect(radiusIn([50, 90], place)).toBeGreaterThan(50);
          expect(radiusIn([50, 90], place)).toBeLessThan(90);
        }
      }),
    );
  });

  it('told what its cylinders show, answers the stop it stands at', () => {
    fc.assert(
      fc.property(pattern, (engine) => {
        for (const { firesAt } of engine.cylinders) {
          const seen = Object.fromEntries(
            engine.cylinders.map(({ id }) => [id, signOf(engine, id, firesAt)]),
          );
          expect(['this', 'either']).toContain(whichTdc(engine, firesAt, seen));
          expect(['one-turn-on', 'either']).toContain(whichTdc(engine, inCycle(firesAt + 360), seen));
        }
      }),
      { numRuns: 60 },
    );
  });

  it('walked stop by stop is measured whole, turning on every time', () => {
    fc.assert(
      fc.property(
        pattern,
        fc.constantFrom(...POSITION_SCHOOLS),
        fc.option(angle, { nil: null }),
        (engine, { key }, start) => {
          const plan = planStops(engine, key);
          const measured = new Set<string>();
          const done: number[] = [];
          let at: number | null = start;
          for (let step = 0; step <= plan.stops.length; step += 1) {
            const { here, next } = stopProgress(plan, { at, done }, measured);
            here?.left.forEach((point) => measured.add(point));
            if (here) done.push(here.stop.angle);
            if (!next) break;
            expect(wayToStop(engine, next.stop, at)).toMatch(/^(Turn|Here)/);
            at = next.stop.angle;
          }
          const last = stopProgress(plan, { at, done }, measured);
          last.here?.left.forEach((point) => measured.add(point));
          expect(measured.size).toBe(plan.stops.flatMap(({ points }) => points).length);
          expect(stopProgress(plan, { at, done }, measured).next).toBeNull();
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('firing, written and read again', () => {
  it('is what it was', () => {
    fc.assert(
      fc.property(pattern, ({ cylinders }) => {
        const firing = [...cylinders].sort((a, b) => a.firesAt - b.firesAt);
        const ids = firing.map(({ id }) => id);
        expect(parseFiringOrder(ids.join('-'), ids)).toEqual({ order: ids });
        const angles = firing.map(({ firesAt }) => firesAt);
        const read = firingAngles(firingSteps(angles), ids.length);
        expect('angles' in read && read.angles.map((each) => Math.round(each * 1000) / 1000)).toEqual(angles);
      }),
    );
  });
});
