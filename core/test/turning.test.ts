import { describe, expect, it } from 'vitest';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import {
  arcsOf,
  camsOutInWords,
  firstSchool,
  gearAt,
  gonePastInWords,
  layOutWheel,
  liftShare,
  marksInWords,
  mayMeasurePoint,
  onWheel,
  picturesAt,
  planStops,
  ringPath,
  schoolsFor,
  signsInWords,
  spannedPoints,
  stopProgress,
  stopsAt,
  type PositionSchool,
  wayToStop,
  whichTdc,
} from '../turning/index.ts';
import { inlineFour, inlineSix, vTwelve } from './patterns.ts';

const SCHOOLS: readonly PositionSchool[] = ['fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away'];

describe('where to turn', () => {
  it.each(
    SCHOOLS.flatMap((school) =>
      [inlineFour, inlineSix, vTwelve].map((pattern) => [school, pattern] as const),
    ),
  )('by %s every point is reached once, each stop further on than the last', (school, pattern: Pattern) => {
    const { stops, unreachable } = planStops(pattern, school);
    const done = stops.flatMap(({ points }) => points);
    expect(unreachable).toEqual([]);
    expect(new Set(done).size).toBe(done.length);
    expect(stops.slice(1).every(({ turn }) => turn > 0)).toBe(true);
  });

  it('names the cylinder that fires and the companion that rocks', () => {
    const [first, second] = planStops(inlineSix, 'fewest').stops;
    expect(first).toMatchObject({ angle: 0, marked: true, fires: ['1'], rocks: ['6'] });
    expect(second).toMatchObject({ angle: 360, turn: 360, fires: ['6'], rocks: ['1'] });
  });

  it('tells the two turns of a mark apart by what is felt', () => {
    expect(whichTdc(inlineFour, 0, { '1': 'both-loose' })).toBe('this');
    expect(whichTdc(inlineFour, 0, { '1': 'rocking' })).toBe('one-turn-on');
    expect(whichTdc(inlineFour, 0, { '1': 'rocking', '4': 'rocking' })).toBe('neither');
    expect(whichTdc(inlineFour, 0, {})).toBe('either');
    // of a valve that is pressed open it is felt which
    expect(whichTdc(inlineSix, 0, { '4': 'exhaust-open' })).not.toBe(
      whichTdc(inlineSix, 0, { '4': 'intake-open' }),
    );
    expect(() => whichTdc(inlineFour, 0, { '9': 'rocking' })).toThrow(RangeError);
  });
});

describe('valve lift', () => {
  it('rises to full in the middle of the span, without a jump in velocity at either end', () => {
    const span = { start: 700, length: 240 };
    expect(liftShare(span, 100)).toBe(1);
    expect(liftShare(span, 699.9)).toBe(0);
    const velocities = Array.from(
      { length: 721 },
      (_, angle) => liftShare(span, angle + 0.5) - liftShare(span, angle - 0.5),
    );
    for (const [index, velocity] of velocities.slice(1).entries())
      expect(Math.abs(velocity - velocities[index]!)).toBeLessThan(0.001);
  });
});

describe('a stop in words', () => {
  const { stops } = planStops(inlineSix, 'each-firing');

  it('says how far, which way and to what, and the signs that it is the right one', () => {
    expect(wayToStop(inlineSix, stops[1]!, stops[0]!.angle)).toBe(
      'Turn 120° on, clockwise seen from the front, to the mark',
    );
    expect(wayToStop(inlineSix, stops[0]!, 600)).toMatch(/^Turn 120° on/);
    expect(wayToStop(inlineSix, stops[0]!, null)).toBe('Turn clockwise seen from the front to the mark');
    expect(wayToStop(inlineSix, { ...stops[1]!, angle: 470, marked: false }, 0)).toMatch(
      /Turn 470° on.*to 110° past the first mark/,
    );
    expect(signsInWords(inlineSix, stops[1]!)).toEqual([
      'at its pointer: the mark',
      'cylinder 5 at firing TDC: both sides loose',
      'cylinder 2 with its valves rocking: both move as the crank is moved a little',
      'cylinder 1: exhaust just opening',
      'cylinder 3: intake just closed',
      'fully open: 4E',
      'lobes away from their followers: 5I, 5E',
    ]);
  });

  it('calls a mark what stands on it, where it is looked at from, and what beside it is none', () => {
    const named = {
      ...inlineSix,
      markNames: [{ at: 120, words: '2-5', from: 'flywheel' as const, decoys: 'the dot beside it' }],
    };
    const mark = 'the mark “2-5”, seen from the flywheel end, not the dot beside it';
    expect(wayToStop(named, stops[1]!, 0)).toBe(`Turn 120° on, clockwise seen from the front, to ${mark}`);
    // the mark comes round again half a cycle later
    expect(
      wayToStop(
        named,
        stops.find(({ angle }) => angle === 480)!,
        0,
      ),
    ).toContain(mark);
    expect(wayToStop(named, stops[2]!, 0)).toMatch(/to the mark$/);
    expect(signsInWords(named, stops[1]!)[0]).toBe(`at its pointer: ${mark}`);
  });

  it('says how cams and rotor stand there, of the one turn they belong to; of a timing nobody knows, nothing of valves', () => {
    const seen = {
      ...inlineSix,
      positionSigns: [{ at: 120, cams: 'toward each other', rotor: 'rotor at the notch' }],
    };
    expect(wayToStop(seen, stops[1]!, 0)).toMatch(/to the mark, the cams’ marks toward each other$/);
    expect(signsInWords(seen, stops[1]!)).toEqual(
      expect.arrayContaining(['the cams’ marks: toward each other', 'rotor at the notch']),
    );
    const [, , , , second] = stops;
    expect(signsInWords(seen, second!).join()).not.toMatch(/rotor|toward/);
    const unknown = { ...inlineSix, timing: { ...inlineSix.timing, assumed: true } };
    expect(signsInWords(unknown, stops[1]!).join()).not.toMatch(/just/);
    expect(marksInWords({ ...seen, markNames: [{ at: 0, words: '1-6', from: null, decoys: '' }] })).toEqual([
      '0°: the mark “1-6”',
      '120°, first turn: the cams’ marks toward each other, rotor at the notch',
    ]);
  });

  it('stops at marks, at firings and at the maker’s positions, and shows a picture of the mark on both turns', () => {
    const pattern = { ...inlineSix, marks: [20, 380], makersStops: [{ angle: 95, points: ['1I'] }] };
    expect([20, 380, 95, 120, 480, 719.5, 60, 96.5].map((angle) => stopsAt(pattern, angle))).toEqual([
      ...[true, true, true, true, true, true, false, false],
    ]);
    const pictures = [
      { at: 20, of: 'mark' },
      { at: 20, of: 'cams' },
    ] as const;
    expect(picturesAt(pictures, 20)).toHaveLength(2);
    expect(picturesAt(pictures, 380)).toEqual([pictures[0]]);
    expect(picturesAt(pictures, 120)).toEqual([]);
    // a mark a little before its pointer is the same on both sides of a whole turn
    expect(picturesAt([{ at: 359.6, of: 'mark' }], 0.2)).toHaveLength(1);
    expect(picturesAt([{ at: 0, of: 'mark' }], 719.7)).toHaveLength(1);
  });

  it('says where the crank stands while cams come out', () => {
    const out = { at: 480, lockedBy: '8 mm pin', first: 'tensioner locked back' };
    expect(camsOutInWords(inlineSix)).toBeNull();
    expect(camsOutInWords({ ...inlineSix, camsOut: out })).toBe(
      'Crank at the mark, the second turn locked by 8 mm pin; first: tensioner locked back',
    );
    expect(camsOutInWords({ ...inlineSix, camsOut: { ...out, at: 60.25, first: '' } })).toBe(
      'Crank at 60.3° locked by 8 mm pin',
    );
    expect(camsOutInWords({ ...inlineSix, camsOut: { ...out, at: null } })).toMatch(
      /^Crank locked by 8 mm pin/,
    );
  });

  it('goes by the pistons of an engine that has no mark, which begins with each cylinder’s firing', () => {
    const bare = { ...inlineSix, marks: [] };
    expect(firstSchool(bare)).toBe('each-firing');
    expect(schoolsFor(bare).map(({ key }) => key)).not.toContain('fewest');
    const plan = planStops(bare, 'each-firing');
    expect(plan.unreachable).toEqual([]);
    expect(wayToStop(bare, plan.stops[1]!, 0)).toBe(
      'Turn 120° on, clockwise seen from the front, until cylinder 5 is at the top of its firing stroke',
    );
    expect(
      wayToStop(bare, { ...plan.stops[1]!, angle: 150, fires: [], rocks: [], fullyOpen: [] }, null),
    ).toMatch(/ 30° past the top of cylinder 5’s firing stroke$/);
    expect(wayToStop(bare, { ...plan.stops[1]!, angle: 150, fires: [], rocks: [] }, null)).toMatch(
      /until 4E is fully open$/,
    );
    expect(signsInWords(bare, plan.stops[1]!)[0]).toMatch(/piston is at the very top/);
    expect(gonePastInWords(bare)).toMatch(/piston/);
  });

  it('names the valve to watch, and takes two stops together where it stands fully open at both', () => {
    // the lobes of such a cam stand 20° apart, seen from one cylinder to the next
    const timing = { ivoBtdc: 15, ivcAbdc: 53, evoBbdc: 57, evcAtdc: 15, assumed: false };
    const six = { ...inlineSix, timing };
    const plan = planStops(six, 'open-pair');
    expect(plan.unreachable).toEqual([]);
    expect(plan.stops).toHaveLength(6);
    for (const stop of plan.stops) {
      expect(stop.points).toHaveLength(2);
      expect(stop.fullyOpen.length).toBeGreaterThan(0);
      for (const point of stop.points) expect(mayMeasurePoint(six, point, stop.angle), point).toBe(true);
      if (!stop.marked)
        expect(wayToStop(six, stop, null)).toContain(`until ${stop.fullyOpen[0]} is fully open`);
    }
    // where the windows do not meet each has a stop of its own
    const far = {
      ...inlineSix,
      timing: { ivoBtdc: 30, ivcAbdc: 50, evoBbdc: 40, evcAtdc: 30, assumed: false },
    };
    expect(planStops(far, 'open-pair').stops).toHaveLength(12);
  });

  it('leaves a brake rocker, open while its own cylinder fires, to its companion’s firing', () => {
    const brakes = inlineSix.cylinders.map(({ id: cylinder }) => ({ cylinder, opens: 640, closes: 780 }));
    const plan = planStops({ ...inlineSix, brakes }, 'companion');
    expect(plan.stops.find(({ points }) => points.includes('1B'))).toMatchObject({
      fires: ['6'],
      rocks: ['1'],
    });
  });
});

describe('the turning of a round', () => {
  const plan = planStops(inlineFour, 'fewest');
  const [first, second] = plan.stops;

  it('goes on from where the crank stands to the next stop with something left', () => {
    const fresh = stopProgress(plan, { at: null, done: [] }, new Set());
    expect(fresh).toMatchObject({ here: null, next: { number: 1, place: 'to-come' } });
    const half = stopProgress(plan, { at: first!.angle, done: [] }, new Set(first!.points.slice(1)));
    expect(half.here).toMatchObject({ number: 1, left: [first!.points[0]] });
    expect(half.next?.number).toBe(2);
  });

  it('counts a stop as done when the bench left it, yet comes back for what it left', () => {
    const left = stopProgress(plan, { at: second!.angle, done: [first!.angle] }, new Set(second!.points));
    expect(left.stops.map(({ place }) => place)).toEqual(['done', 'here']);
    expect(left.next).toMatchObject({ number: 1, left: first!.points });
    const all = new Set(plan.stops.flatMap(({ points }) => points));
    expect(stopProgress(plan, { at: null, done: [] }, all).next).toBeNull();
  });
});

describe('the crank wheel', () => {
  it.each([inlineFour, inlineSix, vTwelve])(
    'has a place for every point, none over another',
    (pattern: Pattern) => {
      const tracks = layOutWheel(pattern);
      expect(tracks.flatMap(({ keys }) => keys).sort()).toEqual(
        lashPoints(pattern)
          .map(({ key }) => key)
          .sort(),
      );
      for (const [index, track] of tracks.slice(1).entries())
        expect(track.place - tracks[index]!.place).toBeGreaterThanOrEqual(track.share - 1e-9);
      expect(tracks.at(-1)!.place).toBeLessThan(1);
    },
  );

  it('cuts a stretch at the turn and at the end of the cycle', () => {
    expect(arcsOf(300, 200)).toEqual([
      { turn: 0, from: 300, to: 360 },
      { turn: 1, from: 0, to: 140 },
    ]);
    expect(arcsOf(700, 40)).toEqual([
      { turn: 1, from: 340, to: 360 },
      { turn: 0, from: 0, to: 20 },
    ]);
    expect(arcsOf(0, 720).map(({ from, to }) => to - from)).toEqual([360, 360]);
  });

  it('turns the way the engine turns, and draws a whole circle whole', () => {
    expect(onWheel('clockwise', 100, 90)).toEqual({ x: 100, y: 0 });
    expect(onWheel('anticlockwise', 100, 90)).toEqual({ x: -100, y: 0 });
    expect(ringPath('clockwise', 10, { from: 0, to: 360 })).toBe('M0 -10A10 10 0 0 1 0 10A10 10 0 0 1 0 -10');
    expect(ringPath('anticlockwise', 10, { from: 0, to: 270 })).toBe('M0 -10A10 10 0 1 0 10 0');
  });

  it('says what may be measured and how the lobes stand', () => {
    const gear = gearAt(spannedPoints(inlineSix), inlineSix.margin, 0);
    expect(gear.filter(({ closed }) => closed).map(({ key }) => key)).toEqual(
      lashPoints(inlineSix)
        .map(({ key }) => key)
        .filter((key) => mayMeasurePoint(inlineSix, key, 0)),
    );
    const open = gear.find(({ key }) => key === '6I')!;
    expect(open.lift).toBeGreaterThan(0);
    expect(gear.find(({ key }) => key === '1I')).toMatchObject({ closed: true, lift: 0 });
    expect(mayMeasurePoint(inlineSix, '9I', 0)).toBe(false);
  });
});
