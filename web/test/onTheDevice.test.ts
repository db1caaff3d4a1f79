import type { BuildView } from '../builds/buildView.ts';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { describe, expect, it } from 'vitest';
import { rolesOf } from '@zero-lash/core/sheets';
import { pointsClosedAt } from '@zero-lash/core/turning';
import { leftToMeasure, nextToMeasure, passedOver, pointStatus } from '@zero-lash/core/builds';
import { inlineSix } from '../../core/test/patterns.ts';
import type { OutboxItem } from '../app/outboxItem.ts';
import { gaugeReducer, gaugeSaid, zeroChecked } from '../instruments/gauge.ts';
import { itemPut, outboxReducer, outboxRead, serverReached } from '../app/outbox.ts';
import { roundHere, withoutOthers } from '../measuring/pending.ts';
import { triesMade, triesRead, triesReducer } from '../measuring/tries.ts';
import { foreseenInWords, heldThickness, triesInWords } from '../measuring/tryWords.ts';
import { withPending } from '../builds/pending.ts';
import '../start/rooms.ts';

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
const round = {
  id: 'r',
  kind: 'as-found',
  recheckId: null,
  turning: { school: 'fewest', at: null, done: [] },
  conditions: [],
  readings: [row('1I')],
} as unknown as Round;
const build = (change: Partial<BuildView> = {}) =>
  ({
    id: 'b',
    stage: 'set',
    sheet: {
      pattern: inlineSix,
      limits: rolesOf(inlineSix).map((role) => ({ role, min: 0.1, max: 0.2 })),
    },
    rounds: [round],
    settings: [],
    ticks: [],
    notes: [],
    rechecks: [],
    ...change,
  }) as unknown as BuildView;
let order = 0;
const item = (point: string, change: Partial<OutboxItem> = {}): OutboxItem => ({
  key: `key-${point}`,
  order: (order += 1),
  personId: 'p',
  by: 'Tobin Hask',
  buildId: 'b',
  kind: 'reading',
  within: 'r',
  about: point,
  said: '0.05 0.08',
  method: 'POST',
  path: 'rounds/r/readings',
  takenAt: '2031-01-01T10:00:00Z',
  body: { point, reading: { kind: 'bracket', go: 0.05, noGo: 0.08 }, asTyped: '0.05 0.08' },
  refused: null,
  ...change,
});

describe('a build on the device', () => {
  it('shows readings that wait over what the server has, judged by the same core', () => {
    const items = [item('1I'), item('1E'), item('2I', { buildId: 'other' })];
    const view = withPending(build(), items);
    expect(view.rounds[0]!.readings.map(({ point, verdict, by }) => [point, verdict, by])).toEqual([
      ['1I', 'tight', 'Tobin Hask'],
      ['1E', 'tight', 'Tobin Hask'],
    ]);
    expect(view.rounds[0]!.readings[0]).toMatchObject({ supersedes: 'row-1I', earlier: 1 });
    expect([...roundHere(view.rounds[0]!, items).waiting]).toEqual(['1I', '1E', '2I']);
  });

  it('says of one that waits, too, that it was taken off its base circle', () => {
    const taken = (crankAngle: number | null) => {
      const one = item('1E');
      const waits = { ...one, body: { ...(one.body as object), crankAngle } };
      const { readings } = withPending(build({ rounds: [{ ...round, readings: [] }] }), [waits]).rounds[0]!;
      return pointStatus(readings[0], null);
    };
    expect(taken(0)).toBe('tight');
    expect(taken(270)).toBe('off-base');
    expect(taken(null)).toBe('tight');
  });

  it('keeps what was refused apart, and shows what the server has', () => {
    const refused = item('1I', { refused: { code: 'round_closed' } as never });
    expect(withPending(build(), [refused])).toEqual(build());
  });

  it('shows everything else that was done here, too, before the server has it', () => {
    const at = '2031-01-02T10:00:00Z';
    const done = (kind: string, within: string | null, body: object, key: string = kind) =>
      item('', { kind, within, body, key, takenAt: at });
    const view = withPending(build(), [
      done('conditions', 'r', { engineTempC: 48, hoursSinceRun: 2, condition: 'hot' }),
      done('turning', 'r', { school: 'companion', at: 120, done: [0] }),
      done('setting', null, { point: '1I', kind: 'fitted', installed: 2.4, fitted: 2.35 }),
      done('tick', null, { stage: 'set', check: 'marks', done: true }),
      done('tick', null, { stage: 'set', check: 'marks', done: false }, 'untick'),
      done('note', null, { stage: 'set', text: 'Shim 235 was in the wrong box' }),
      done('round', 'recheck', { sequence: 2 }),
    ]);
    expect(view.rounds[0]!.conditions).toMatchObject([
      { id: 'conditions', condition: 'hot', by: 'Tobin Hask' },
    ]);
    expect(view.rounds[0]!.turning).toEqual({ school: 'companion', at: 120, done: [0] });
    expect(view.settings).toMatchObject([{ id: 'setting', point: '1I', fitted: 2.35, mark: '', at }]);
    expect(view.ticks).toMatchObject([{ check: 'marks', done: false }]);
    expect(view.notes).toMatchObject([{ id: 'note', text: 'Shim 235 was in the wrong box' }]);
    expect(view.rounds[1]).toMatchObject({ id: 'recheck', kind: 'recheck', number: 2, readings: [] });
    expect(view.sheet).toBe(view.sheet);
  });

  it('lays readings of a recheck into the round that was opened here, and not into a second one of it', () => {
    const opened = item('', { kind: 'round', within: 'recheck', body: { sequence: 1 }, key: 'o' });
    const reading = item('1E', { within: 'recheck' });
    const view = withPending(build(), [opened, reading]);
    expect(view.rounds[1]!.readings).toHaveLength(1);
    const known = { ...round, id: 'recheck', recheckId: 'recheck', kind: 'recheck' as const };
    expect(withPending(build({ rounds: [round, known] }), [opened]).rounds).toHaveLength(2);
  });

  it('holds a third look against what the first one saw, not against the second', () => {
    const first = { ...row('1I'), lo: 0.15, hi: 0.18 };
    const second = { ...row('1I', 'Ilse Marrand', true), firstLook: { by: first.by, lo: 0.15, hi: 0.18 } };
    const blind = item('1I', { body: { ...(item('1I').body as object), blind: true } });
    const look = (before: ReadingRow) =>
      withPending(build({ rounds: [{ ...round, readings: [before] }] }), [blind]).rounds[0]!.readings[0]!
        .firstLook;
    expect(look(first)).toMatchObject({ by: 'Osk Velland', lo: 0.15 });
    expect(look(second as ReadingRow)).toMatchObject({ by: 'Osk Velland', lo: 0.15 });
  });

  it('hides what others found from a second look, until it has looked itself', () => {
    const here = roundHere({ ...round, readings: [row('1I'), row('1E', 'Ilse Marrand', true)] }, []);
    expect(withoutOthers(here, 'Ilse Marrand').readings.map(({ point }) => point)).toEqual(['1E']);
  });
});

describe('what the device holds', () => {
  it('is shown at once, follows the store, and says whether the server is reached', () => {
    const start = outboxReducer(undefined, serverReached(true));
    const put = (key: string, ...insteadOf: string[]) => itemPut({ item: item(key), insteadOf });
    const taken = outboxReducer(start, put('1I'));
    expect(outboxReducer(taken, put('1I')).items).toHaveLength(1);
    expect(outboxReducer(taken, put('1E', 'key-1I')).items.map(({ key }) => key)).toEqual(['key-1E']);
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
    expect(triesInWords([{ thickness: 5, result: 'wont' }], String, 'thou')).toBe('5 won’t, in thou');
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
  const stopAt = (number: number, left: string[]) => ({ number, left, place: 'here', stop: {} }) as never;
  const none = { ...round, readings: [] };

  it('is one that may be measured where the crank stands, then one of the next stop', () => {
    const stops = { here: stopAt(1, ['1I', '2E']), next: stopAt(2, ['1E']) };
    expect(nextToMeasure(points, none, '1I', stops)).toBe('2E');
    expect(nextToMeasure(points, none, '1I', { ...stops, here: stopAt(1, ['1I']) })).toBe('1E');
    expect(nextToMeasure(points, none, '1I', { here: null, next: null })).toBe('1E');
  });

  it('knows nothing of a crank nobody has placed', () => {
    expect(pointsClosedAt({} as never, null)).toBeNull();
  });
});

describe('a short look on the device', () => {
  const points = ['1I', '1E', '2I'].map((key) => ({ key })) as never;
  const looked = (...readings: ReadingRow[]) =>
    ({ ...round, kind: 'recheck', recheckId: 'rc', readings }) as Round;
  const read = (point: string) => ({ ...row(point), reading: { kind: 'value', value: 0.1 } }) as ReadingRow;
  const rechecks = [{ id: 'rc', points: ['1I', '2I'] }] as never;
  const over = (of: Round) => [...passedOver(points, of, rechecks)];

  it('passes over what it does not take, until a point of it does not hold', () => {
    expect(over(looked())).toEqual(['1E']);
    expect(leftToMeasure(points, looked(), ['1I', '2I'])).toBe(2);
    expect(over(looked(read('1I')))).toEqual(['1E']);
    expect(leftToMeasure(points, looked(read('1I')), ['1I', '2I'])).toBe(1);
    const tight = { ...read('1I'), verdict: 'tight' } as ReadingRow;
    expect(over(looked(tight))).toEqual([]);
    expect(leftToMeasure(points, looked(tight), ['1I', '2I'])).toBe(2);
  });

  it('shows what was measured beside it, and passes nothing over in a round of every point', () => {
    expect(over(looked(read('1E')))).toEqual([]);
    expect([...passedOver(points, looked(), [{ id: 'rc', points: null }] as never)]).toEqual([]);
    expect([...passedOver(points, { ...round, readings: [] }, rechecks)]).toEqual([]);
    // a reading that proves nothing is measured again
    const offBase = { ...read('1I'), offBase: true } as ReadingRow;
    expect(leftToMeasure(points, looked(offBase), ['1I', '2I'])).toBe(2);
  });
});
