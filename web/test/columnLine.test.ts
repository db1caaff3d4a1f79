import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  EMPTY_LINE,
  lineAfter,
  type ColumnLine,
  type Given,
  type LineEvent,
} from '../measuring/columnLine.ts';

const EXPECTED = { min: 0.2, max: 0.3 };
const TEXTS = [
  '',
  ' ',
  '0.25',
  '0.24 0.26',
  '>0.2',
  '2.5',
  '25',
  '0.025',
  'wide',
  '-0.2',
  '10 thou',
  '0.25 ',
];
const SLIPS = new Set(['2.5', '25', '0.025']);
const READ = TEXTS.filter(
  (text) => text.trim() !== '' && !SLIPS.has(text) && !['wide', '-0.2'].includes(text),
);

/** What a hand does: it types a figure over what stands there, presses Enter once or twice, leaves, or answers. */
const event = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...TEXTS).map((text) => ({ kind: 'typed' as const, text })) },
  { weight: 4, arbitrary: fc.constant({ kind: 'enter' as const }) },
  { weight: 2, arbitrary: fc.constant({ kind: 'left' as const }) },
  { weight: 2, arbitrary: fc.constantFrom('use', 'as-typed', 'take-over', 'leave-over') },
);

/** Does one thing at a line: an answer is tapped only where it is asked. */
function does(line: ColumnLine, what: LineEvent | string, standsThere: boolean) {
  const done: LineEvent | null =
    typeof what !== 'string'
      ? what
      : what === 'use'
        ? line.asked?.meant[0]
          ? { kind: 'use', meant: line.asked.meant[0] }
          : null
        : { kind: what as 'as-typed' };
  if (!done) return null;
  return { done, ...lineAfter(line, done, { unit: 'mm', expected: EXPECTED, standsThere, barred: null }) };
}

describe('a line of a column', () => {
  it('holds what was typed, whatever keys, taps and questions come in whichever order', () => {
    fc.assert(
      fc.property(fc.array(event, { maxLength: 14 }), fc.boolean(), (events, standsThere) => {
        let line = EMPTY_LINE;
        let typed = '';
        const written: Given[] = [];
        for (const what of events) {
          const before = line;
          const step = does(line, what, standsThere);
          if (!step) continue;
          line = step.line;
          if (step.done.kind === 'typed') typed = step.done.text;
          // no key is lost: the line shows what was typed last
          expect(line.text).toBe(typed);
          if (!step.write) continue;
          written.push(step.write);
          // what is written is what stands in the line
          expect(step.write.asTyped).toBe(typed.trim());
          const byKey = step.done.kind === 'enter' || step.done.kind === 'left';
          // a key answers nothing, and writes no slip
          if (byKey) {
            expect([before.asked, before.over]).toEqual([null, null]);
            expect(SLIPS.has(step.write.asTyped)).toBe(false);
          }
          if (step.write.doubtKept)
            expect(step.done.kind === 'as-typed' || before.over?.doubtKept).toBe(true);
          // what somebody measured there gives way only where that was said
          if (standsThere && written.length === 1) expect(step.done.kind).toBe('take-over');
        }
        // ended, a figure that can be read stands, unless a question about it does
        if (READ.includes(typed)) {
          const end = does(line, { kind: 'enter' }, standsThere)!;
          expect(end.line.done === typed.trim() || end.line.over?.asTyped === typed.trim()).toBe(true);
          if (end.line.over === null && end.write === null && end.line.own && written.length > 0)
            expect([written.at(-1)!.asTyped, line.done]).toContain(typed.trim());
        }
      }),
      { numRuns: 3000 },
    );
  });

  it('is gone on from by Enter where it is kept, empty or kept before, and stays where anything is asked', () => {
    const context = { unit: 'mm' as const, expected: EXPECTED, standsThere: false, barred: null };
    const after = (text: string, kind: 'enter' | 'left', line = EMPTY_LINE) =>
      lineAfter({ ...line, text }, { kind }, context);
    expect([after('', 'enter').onward, after('', 'left').onward]).toEqual([true, false]);
    const kept = after('0.25', 'enter');
    expect([kept.onward, kept.write?.asTyped]).toEqual([true, '0.25']);
    // left by a tap it is kept, and the hand stays where it went
    expect(after('0.25', 'left')).toMatchObject({ onward: false, write: { asTyped: '0.25' } });
    expect(after('0.25', 'enter', kept.line)).toMatchObject({ onward: true, write: null });
    expect(after('2.5', 'enter').onward).toBe(false);
    expect(after('wide', 'left')).toMatchObject({ write: null, line: { complaint: expect.any(String) } });
    const barred = lineAfter(
      { ...EMPTY_LINE, text: '0.25' },
      { kind: 'enter' },
      { ...context, barred: 'Not yet.' },
    );
    expect(barred).toMatchObject({ write: null, line: { complaint: 'Not yet.' } });
  });
});
