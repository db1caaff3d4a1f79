import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runningsOf, type LoggedFigure } from '../rechecks/index.ts';

const shown = (usage: number): LoggedFigure => ({ usage, newMeter: null });
const fitted = (usage: number, lastOfOld: number, startedAt = 0): LoggedFigure => ({
  usage,
  newMeter: { lastOfOld, startedAt },
});
const runnings = (...log: LoggedFigure[]) => runningsOf(log).map(({ running }) => running);

describe('what an engine has run in all', () => {
  it('goes on with its meter, over a new one, and back where a slip is put right', () => {
    expect(runnings(shown(990), shown(998), fitted(5, 1000), shown(25))).toEqual([990, 998, 1005, 1025]);
    expect(runnings(shown(100), shown(1100), shown(110))).toEqual([100, 1100, 110]);
    expect(runningsOf([shown(100), fitted(250, 120, 200), shown(260)]).at(-1)).toEqual({
      ...{ running: 180, meterFrom: 200 },
    });
  });

  it('begins where it is said to begin', () => {
    expect(runningsOf([shown(20), shown(30)], { running: 5020, meterFrom: 0 })).toEqual([
      ...[
        { running: 5020, meterFrom: 0 },
        { running: 5030, meterFrom: 0 },
      ],
    ]);
    expect(runningsOf([])).toEqual([]);
  });

  it('is, by any meters, what the engine truly ran: and without a figure that changed nothing it is the same', () => {
    const step = fc.record({
      ran: fc.integer({ min: 0, max: 500 }),
      fits: fc.boolean(),
      at: fc.integer({ min: 0, max: 90 }),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 30 }), fc.nat(), (steps, left) => {
        let [ran, meter] = [0, 0];
        const truth: number[] = [];
        const log = steps.map(({ ran: more, fits, at }, index) => {
          ran += more;
          truth.push(ran);
          meter += more;
          if (!fits || index === 0) return shown(meter);
          const old = meter;
          meter = at;
          return fitted(at, old, at);
        });
        const found = runningsOf(log).map(({ running }) => running);
        expect(found).toEqual(truth);
        // one that was only read off may be struck out, and the others stand
        const out = left % log.length;
        if (out === 0 || log[out]!.newMeter) return;
        const without = runningsOf(log.filter((_, index) => index !== out));
        expect(without.at(-1)?.running).toBe(out === log.length - 1 ? truth.at(-2) : truth.at(-1));
      }),
    );
  });
});
