import type { BuildView } from '@zero-lash/contract/builds';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { describe, expect, it } from 'vitest';
import { inlineFour } from '../../core/test/patterns.ts';
import type { OutboxItem } from '../measuring/deviceStore.ts';
import { gaugeReducer, gaugeSaid, zeroChecked } from '../instruments/gauge.ts';
import { outboxReducer, outboxRead, readingTaken, serverReached } from '../measuring/outbox.ts';
import { roundHere, withoutOthers } from '../measuring/pending.ts';
import { triesMade, triesRead, triesReducer } from '../measuring/tries.ts';
import { foreseenInWords, heldThickness, triesInWords } from '../measuring/tryWords.ts';
import { withNewestReadings } from '../builds/endpoints.ts';
import { closedAt, nextToMeasure, stateOf } from '../builds/points.ts';
import { crankTurned, turningSent, turningsReducer } from '../turning/turnings.ts';

const row = (point: string, by = 'Osk Velland', blind = false) =>
  ({
    id: `row-${point}`,
    roundId: 'r',
    point,
    lo: 0.1,
    hi: 0.12,
    verdict: 'in-spec',
    by,
    blind,
    takenAt: '2031-01-01T00:00:00Z',
    earlier: 0,
  }) as ReadingRow;
const round = { id: 'r', readings: [row('1I')] } as unknown as Round;
const item = (point: string, change: Partial<OutboxItem> = {}): OutboxItem => ({
  key: `key-${point}`,
  order: 1,
  personId: 'p',
  by: 'Tobin Hask',
  buildId: 'b',
  roundId: 'r',
  reading: {
    point,
    reading: { kind: 'bracket', go: 0.05, noGo: 0.08 },
    asTyped: '0.05 0.08',
    takenAt: '2031-01-01T10:00:00Z',
  },
  refused: null,
  ...change,
});
const points = ['1I', '1E', '2I'].map((key) => ({ key, min: 0.1, max: 0.2 }));
const pattern = inlineFour;

describe('a round on the device', () => {
  it('shows what waits over what the server has, judged by the same core', () => {
    const here = roundHere(
      round,
      [item('1I'), item('1E'), item('2I', { roundId: 'other' })],
      points,
      pattern,
    );
    expect(here.readings.map(({ point, verdict, by }) => [point, verdict, by])).toEqual([
      ['1I', 'tight', 'Tobin Hask'],
      ['1E', 'tight', 'Tobin Hask'],
    ]);
    expect(here.readings[0]).toMatchObject({ supersedes: 'row-1I', earlier: 1 });
    expect([...here.waiting]).toEqual(['1I', '1E']);
  });

  it('says of one that waits, too, that it was taken off its base circle', () => {
    const taken = (crankAngle: number | null) => {
      const one = item('1E');
      const { readings } = roundHere(
        { ...round, readings: [] },
        [{ ...one, reading: { ...one.reading, crankAngle } }],
        points,
        pattern,
      );
      return stateOf(readings[0], null);
    };
    expect(taken(0)).toBe('tight');
    expect(taken(270)).toBe('off-base');
    expect(taken(null)).toBe('tight');
  });

  it('keeps what was refused apart, and shows what the server has', () => {
    const refused = item('1I', { refused: { code: 'round_closed' } as never });
    const here = roundHere(round, [refused], points, pattern);
    expect(here.readings).toEqual(round.readings);
    expect(here.refused).toEqual([refused]);
  });

  it('hides what others found from a second look, until it has looked itself', () => {
    const here = roundHere(
      { ...round, readings: [row('1I'), row('1E', 'Ilse Marrand', true)] },
      [],
      points,
      pattern,
    );
    expect(withoutOthers(here, 'Ilse Marrand').readings.map(({ point }) => point)).toEqual(['1E']);
  });
});

describe('what the device holds', () => {
  it('is shown at once, follows the store, and says whether the server is reached', () => {
    const start = outboxReducer(undefined, serverReached(true));
    const taken = outboxReducer(start, readingTaken(item('1I')));
    expect(outboxReducer(taken, readingTaken(item('1I'))).items).toHaveLength(1);
    expect(outboxReducer(taken, outboxRead([])).items).toEqual([]);
    expect(outboxReducer(start, serverReached(true))).toBe(start);
  });

  it('has tries from before, and never over newer ones', () => {
    const tries = [{ thickness: 0.1, result: 'goes' }] as const;
    const made = triesReducer({}, triesMade({ place: 'r:1I', tries: [...tries] }));
    expect(triesReducer(made, triesRead({ 'r:1I': [], 'r:1E': [...tries] }))).toEqual({
      'r:1I': tries,
      'r:1E': tries,
    });
    expect(triesReducer(made, triesMade({ place: 'r:1I', tries: [] }))).toEqual({});
  });

  it('counts presses of a gauge, and keeps its zero in mind from point to point', () => {
    const press = { instrument: 'g', value: 0.15, text: '0.150 mm', trouble: 'none' } as const;
    const twice = gaugeReducer(gaugeReducer(undefined, gaugeSaid(press)), gaugeSaid(press));
    expect(twice.last?.number).toBe(2);
    const off = gaugeReducer(twice, zeroChecked({ instrument: 'g', off: 0.02 }));
    expect(off.zeroOff).toEqual({ g: 0.02 });
    expect(gaugeReducer(off, zeroChecked({ instrument: 'g', off: null })).zeroOff).toEqual({});
  });
});

describe('tries in words', () => {
  it('fit the record, and say what each outcome means', () => {
    expect(triesInWords([{ thickness: 0.13, result: 'goes' }], String)).toBe('0.13 goes');
    expect(triesInWords([], String)).toBe('taken back');
    const many = Array.from({ length: 20 }, () => ({ thickness: 0.13, result: 'wont' as const }));
    expect(triesInWords(many, String)).toHaveLength(80);
    expect(heldThickness([0.1, 0.2])).toBe(0.3);
    const interval = { lo: 0, hi: null };
    expect(
      foreseenInWords([
        { result: 'goes', interval, verdict: 'in-spec' },
        { result: 'drags', interval, verdict: 'undecided' },
        { result: 'wont', interval, verdict: 'tight' },
      ]),
    ).toBe('goes: in spec · won’t: tight');
  });
});

describe('the next point', () => {
  const points = ['1I', '1E', '2I', '2E'].map((key) => ({
    key,
    cylinder: key[0]!,
    role: 'intake' as const,
    index: 0,
  }));
  const standing = (number: number, left: string[]) => ({ number, left, place: 'here', stop: {} }) as never;
  const none = { ...round, readings: [] };

  it('is one that may be measured where the crank stands, then one of the next stop', () => {
    const stops = { here: standing(1, ['1I', '2E']), next: standing(2, ['1E']) };
    expect(nextToMeasure(points, none, '1I', stops)).toBe('2E');
    expect(nextToMeasure(points, none, '1I', { ...stops, here: standing(1, ['1I']) })).toBe('1E');
    expect(nextToMeasure(points, none, '1I', { here: null, next: null })).toBe('1E');
  });

  it('knows nothing of a crank nobody has placed', () => {
    expect(closedAt({} as never, null)).toBeNull();
  });
});

describe('where the crank stands', () => {
  it('holds on the device until the server has that very turning', () => {
    const [first, second] = [0, 360].map((at) => ({ school: 'fewest' as const, at, done: [] }));
    const turned = turningsReducer({}, crankTurned({ roundId: 'r', turning: first! }));
    const again = turningsReducer(turned, crankTurned({ roundId: 'r', turning: second! }));
    expect(turningsReducer(again, turningSent({ roundId: 'r', turning: first! }))).toBe(again);
    expect(turningsReducer(again, turningSent({ roundId: 'r', turning: second! }))).toEqual({});
  });
});

describe('a build fetched before a reading was written', () => {
  it('does not take the reading away again', () => {
    const build = (...readings: ReadingRow[]) =>
      ({ rounds: [{ ...round, readings }] }) as unknown as BuildView;
    const again = { ...row('1I', 'Tobin Hask'), id: 'again', earlier: 1 };
    const known = build(again, row('1E'));
    expect(withNewestReadings(known, build(row('1I'))).rounds[0]!.readings.map(({ id }) => id)).toEqual([
      'again',
      'row-1E',
    ]);
    const third = { ...again, id: 'third', earlier: 2 };
    const later = { ...row('1I'), id: 'later', takenAt: '2031-06-01T00:00:00Z' };
    expect(withNewestReadings(build(again), build(later)).rounds[0]!.readings).toEqual([later]);
    expect(withNewestReadings(build(later), build(again)).rounds[0]!.readings).toEqual([later]);
    expect(withNewestReadings(known, build(third, row('1E'))).rounds[0]!.readings[0]).toBe(third);
  });
});
