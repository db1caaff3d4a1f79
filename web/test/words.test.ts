import { torqueWarningOf } from '../sheets/warnings.ts';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { describe, expect, it } from 'vitest';
import { problemFrom } from '../app/api.ts';
import { numberTyped } from '@zero-lash/core/length';
import { nextUnmeasured } from '@zero-lash/core/builds';
import { headPoints } from '../buildPage/headPoints.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { draftKey, draftsReducer, draftTyped } from '../app/drafts.ts';
import { firingInWords, stepInWords } from '../sheets/words.ts';

describe('a number as typed', () => {
  it.each([
    ['87,9', 87.9],
    ['.5', 0.5],
    ['5.', 5],
    ['−12', -12],
    ['+3', 3],
    [' 0 ', 0],
    ['', NaN],
    ['1e3', NaN],
    ['0x10', NaN],
    ['Infinity', NaN],
    ['1.2.3', NaN],
    ['12 h', NaN],
  ])('%s is %d', (text, figure) => {
    expect(numberTyped(text)).toBe(figure);
  });
});

describe('a running figure as typed', () => {
  it.each([
    ['61,480', 61480],
    ['1,261,480.5', 1261480.5],
    ['87,9', 87.9],
    ['87.9', 87.9],
    ['1840', 1840],
    ['1,84', 1.84],
    [' 12 ', 12],
    ['', NaN],
    ['about 12', NaN],
    ['61,48,0', NaN],
  ])('%s is %d', (text, figure) => {
    expect(runningTyped(text)).toBe(figure);
  });

  it('is read back as it is printed, whatever it is', () => {
    for (let figure = 0; figure < 3_000_000; figure += 17_931.3) {
      const kept = Math.round(figure * 10) / 10;
      expect(runningTyped(grouped(kept))).toBe(kept);
    }
  });
});

describe('figures and days', () => {
  it.each([
    [0, '0'],
    [999, '999'],
    [61480, '61,480'],
    [1234567.8, '1,234,567.8'],
    [87.9, '87.9'],
  ])('%d is read as %s', (value, text) => {
    expect(grouped(value)).toBe(text);
  });
});

describe('a sheet in words', () => {
  const cylinder = (id: string, firesAt: number) => ({ id, bank: 'A' as const, place: Number(id), firesAt });

  it('says even firing once and uneven firing step by step', () => {
    expect(
      firingInWords([cylinder('1', 0), cylinder('2', 540), cylinder('3', 180), cylinder('4', 360)]),
    ).toBe('1-3-4-2, every 180°');
    expect(firingInWords([cylinder('1', 0), cylinder('2', 435)])).toBe('1-2, 435° then 285°');
    expect(firingInWords([cylinder('1', 0)])).toBe('1, every 720°');
  });

  it('says a recheck step by running, by days, or by both', () => {
    expect(stepInWords({ afterUsage: 10, afterDays: 30 }, 'hours')).toBe('10 hours or 30 days');
    expect(stepInWords({ afterUsage: null, afterDays: 365 }, 'hours')).toBe('365 days');
  });
});

describe('the points of a round', () => {
  const points = ['1I', '1E', '2I'].map((key) => ({
    key,
    cylinder: key[0]!,
    role: 'intake' as const,
    index: 0,
  }));
  const reading = (point: string, lo: number, hi: number | null) =>
    ({ point, lo, hi, verdict: 'in-spec', reading: { kind: 'go-only', go: lo } }) as ReadingRow;
  const round = (...readings: ReadingRow[]) => ({ readings }) as Round;

  it('are shown greater limit first, open ends as such, done ones marked', () => {
    const shown = headPoints(
      points,
      round(reading('1I', 0.1, 0.2), reading('1E', 0.3, null)),
      String,
      new Set(['1E']),
      () => null,
    );
    expect(shown).toEqual({
      '1I': {
        state: 'in-spec',
        gap: { lo: '0.1', hi: '0.2', governs: 'lo' },
        done: undefined,
        closed: undefined,
        waiting: undefined,
      },
      '1E': {
        state: 'in-spec',
        gap: { lo: '0.3', hi: '…', governs: 'lo' },
        done: 'set',
        closed: undefined,
        waiting: undefined,
      },
      '2I': { state: 'not-measured', done: undefined, closed: undefined, waiting: undefined },
    });
  });

  it('that no blade entered are called by the blade that did not, never by a nought that nobody saw', () => {
    const under = { ...reading('1I', 0, 0.04), floor: false, verdict: 'tight' as const };
    const shown = headPoints(points, round(under), String, new Set(), () => null);
    expect(shown['1I']).toMatchObject({ state: 'tight', gap: { lo: null, hi: '0.04', governs: 'hi' } });
  });

  it('that were changed are called by the piece that is in, as it is stamped and not as the page reads', () => {
    const at = '2031-01-01T10:00:00Z';
    const shown = (stamped: 'mm' | 'thou') =>
      headPoints(
        points.map((point) => ({ ...point, stamped })),
        round({ ...reading('1I', 0.1, 0.2), takenAt: '2031-01-01T09:00:00Z' } as ReadingRow),
        (mm) => `${mm} as the page reads`,
        new Set(),
        (key) => (key === '1I' ? { at, fitted: 2.54, kind: 'fitted' as const } : null),
      )['1I'];
    expect(shown('mm')).toMatchObject({ state: 'changed-since', piece: '2.54' });
    expect(shown('thou')).toMatchObject({ state: 'changed-since', piece: '100.0' });
  });

  it('are gone through in order, round the end, until none is left', () => {
    expect(nextUnmeasured(points, round(), '1I')).toBe('1E');
    expect(nextUnmeasured(points, round(reading('2I', 0, 1)), '1E')).toBe('1I');
    expect(nextUnmeasured(points, round(reading('1I', 0, 1), reading('1E', 0, 1)), '2I')).toBeNull();
  });
});

describe('what is typed and not sent', () => {
  it('is kept by round and point, and forgotten when it is emptied', () => {
    const key = draftKey('r', '1I');
    const typed = draftsReducer({}, draftTyped({ key, text: '0.1' }));
    expect(typed).toEqual({ 'r:1I': '0.1' });
    expect(draftsReducer(typed, draftTyped({ key, text: '' }))).toEqual({});
  });
});

describe('a failed request', () => {
  it('is the server’s own problem where it sent one, and one of reach where it did not', () => {
    const problem = { code: 'stale', detail: 'Somebody changed this.' };
    expect(problemFrom({ status: 409, data: problem })).toEqual(problem);
    expect(problemFrom({ status: 'FETCH_ERROR', error: 'refused' })?.code).toBe('unreached');
    expect(problemFrom({ status: 502, data: '<html>' })?.code).toBe('unreached');
    expect(problemFrom(undefined)).toBeNull();
  });
});

describe('a torque ten times off', () => {
  it('is asked about where it is typed, with what was meant', () => {
    expect(torqueWarningOf({ fastening: 'Cover bolts', steps: '90 Nm' })).toMatchObject({
      suggestions: ['9 N·m'],
    });
    expect(torqueWarningOf({ fastening: 'Cover bolts', steps: '9 Nm' })).toBeNull();
  });
});

describe('a recheck before a season', () => {
  it('says what begins, and when', () => {
    const step = {
      afterUsage: 250,
      afterDays: null,
      afterCycles: 12,
      before: '10-01',
      season: 'the first frost',
    };
    expect(stepInWords(step, 'hours')).toBe(
      '250 hours or 12 heat cycles or before the first frost (1 October)',
    );
  });
});
