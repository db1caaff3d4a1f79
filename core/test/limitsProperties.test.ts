import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  assess,
  compareLooks,
  foresee,
  intervalOf,
  isDecided,
  limitsFromMm,
  narrowingBlade,
  withoutContradicted,
  type Try,
} from '../measuring/index.ts';
import { limitWarning, parseLimits } from '../sheets/index.ts';

const tenths = fc.integer({ min: 200, max: 9000 });
const band = fc
  .tuple(tenths, fc.integer({ min: 100, max: 3000 }))
  .map(([min, width]) => ({ min: min / 10_000, max: (min + width) / 10_000 }));
const blade = fc.integer({ min: 2, max: 120 }).map((hundredths) => hundredths / 100);
const tries: fc.Arbitrary<Try[]> = fc.array(
  fc.record({
    thickness: blade,
    result: fc.constantFrom('goes' as const, 'drags' as const, 'wont' as const),
  }),
  { maxLength: 8 },
);

describe('limits, written and read again', () => {
  it('as from and to, in any dash and with or without their unit', () => {
    const dash = fc.constantFrom('-', '–', ' to ', ' - ', '…');
    fc.assert(
      fc.property(band, dash, fc.boolean(), ({ min, max }, between, unit) => {
        expect(parseLimits(`${min}${between}${max}${unit ? ' mm' : ''}`, 'mm')).toMatchObject({ min, max });
      }),
    );
  });

  it('as a nominal figure with its tolerance', () => {
    const sign = fc.constantFrom('±', '+/-');
    fc.assert(
      fc.property(
        fc.integer({ min: 500, max: 9000 }),
        fc.integer({ min: 10, max: 400 }),
        sign,
        (nominal, tolerance, plus) => {
          expect(parseLimits(`${nominal / 10_000} ${plus} ${tolerance / 10_000}`, 'mm')).toMatchObject({
            min: (nominal - tolerance) / 10_000,
            max: (nominal + tolerance) / 10_000,
            nominal: nominal / 10_000,
            tolerance: tolerance / 10_000,
          });
        },
      ),
    );
  });

  it('in thou are whole tenths of a micrometre', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 20 }), (least, wide) => {
        const read = parseLimits(`${least} to ${least + wide} thou`, 'mm');
        expect(read).toMatchObject({ min: (least * 254) / 10_000, max: ((least + wide) * 254) / 10_000 });
      }),
    );
  });

  it('never throw, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 24 }), (text) => {
        const read = parseLimits(text, 'mm');
        if ('error' in read) expect(read.error).not.toBe('');
        else if (read.min !== null) expect(read.min).toBeLessThan(read.max!);
      }),
    );
  });
});

describe('a question about limits', () => {
  it('is not asked again of what it suggested for a gap ten times out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 11, max: 60 }), fc.integer({ min: 1, max: 20 }), (least, wide) => {
        const wrong = { min: least / 10, max: (least + wide) / 10, nominal: null, tolerance: null };
        const warning = limitWarning(wrong, 'cold', []);
        if (warning?.code !== 'over-a-millimetre') return;
        const meant = { ...warning.suggestion!, nominal: null, tolerance: null };
        expect(limitWarning(meant, 'cold', [])).toBeNull();
      }),
    );
  });
});

describe('tries, whatever they are', () => {
  it('that tell the truth keep it between their ends', () => {
    fc.assert(
      fc.property(
        fc.array(blade, { maxLength: 12 }),
        fc.integer({ min: 1, max: 12_000 }),
        (blades, truth) => {
          const gap = truth / 10_000;
          const told: Try[] = blades.map((thickness) => ({
            thickness,
            result: thickness <= gap ? 'goes' : 'wont',
          }));
          const { lo, hi } = intervalOf({ kind: 'tries', tries: told });
          expect(lo).toBeLessThanOrEqual(truth);
          if (hi !== null) expect(hi).toBeGreaterThan(truth - 1);
        },
      ),
    );
  });

  it('are left in agreement when the newest is believed, and keep it', () => {
    fc.assert(
      fc.property(tries, (made) => {
        const kept = withoutContradicted(made, 0);
        const newest = made.at(-1);
        expect(kept.at(-1)).toBe(newest);
        if (!newest) return;
        for (const one of kept) {
          const { lo, hi } = intervalOf({ kind: 'tries', tries: [one, newest], repeatability: 0 });
          if (hi !== null) expect(lo).toBeLessThanOrEqual(hi);
        }
      }),
    );
  });

  it('come out as they were foreseen', () => {
    fc.assert(
      fc.property(tries, blade, band, (made, thickness, spec) => {
        for (const { result, verdict } of foresee(made, thickness, limitsFromMm(spec))) {
          const reading = { kind: 'tries', tries: [...made, { thickness, result }] } as const;
          expect(assess({ spec, reading }).verdict).toBe(verdict);
        }
      }),
    );
  });

  it('are narrowed where it is out until that is known closely enough, or no blade says more', () => {
    const blades = Array.from({ length: 60 }, (_, index) => (index + 2) / 100);
    const spec = { min: 0.3, max: 0.34 };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6100 }), (truth) => {
        const gap = truth / 10_000;
        // what a first try on the limit says
        let [lo, hi]: [number, number | null] = gap >= spec.max ? [spec.max, null] : [0, spec.min];
        if (gap >= spec.min && gap < spec.max) return;
        for (let step = 0; step < 40; step += 1) {
          const next = narrowingBlade({ blades, maxStack: 1, lo, hi, spec, enough: 0.02 });
          if (!next) break;
          expect(next.thickness).toBeGreaterThan(lo);
          if (next.thickness <= gap) lo = next.thickness;
          else hi = next.thickness;
        }
        expect(narrowingBlade({ blades, maxStack: 1, lo, hi, spec, enough: 0.02 })).toBeNull();
        if (hi !== null && lo >= 0.02) expect(hi - lo).toBeLessThanOrEqual(0.02 + 1e-9);
      }),
    );
  });
});

describe('two looks', () => {
  const interval = fc
    .tuple(fc.integer({ min: 0, max: 5000 }), fc.option(fc.integer({ min: 0, max: 2000 }), { nil: null }))
    .map(([lo, wide]) => ({ lo, hi: wide === null ? null : lo + wide }));

  it('stand to each other the same both ways round, and agree exactly where some clearance fits both', () => {
    fc.assert(
      fc.property(interval, interval, (first, second) => {
        const compared = compareLooks(first, second);
        expect(compareLooks(second, first)).toEqual(compared);
        const lo = Math.max(first.lo, second.lo);
        const hi = Math.min(first.hi ?? Infinity, second.hi ?? Infinity);
        expect(compared.agree).toBe(lo <= hi);
        expect(compared.apart).toBe(Math.max(0, lo - hi));
      }),
    );
  });

  it('settle a point only by a verdict that says which side it is on', () => {
    const decided = (
      ['tight', 'loose', 'in-spec', 'undecided', 'undecided-low', 'undecided-high', 'conflict'] as const
    ).filter(isDecided);
    expect(decided).toEqual(['tight', 'loose', 'in-spec']);
  });
});
