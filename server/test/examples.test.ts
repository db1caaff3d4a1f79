import { readFileSync } from 'node:fs';
import { describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { examplesIn, expectSaid, run } from '../../core/test/runExamples.ts';

const ROOT = new URL('../../', import.meta.url);

/** Files whose examples need no more than the file itself, and what else they name. Others show a route, a hook or a component. */
const FILES: readonly (readonly [string, Readonly<Record<string, unknown>>])[] = [
  ['server/clock.ts', {}],
  ['server/gauges/protocol.ts', {}],
  ['server/plugins/databaseErrors.ts', {}],
  ['server/plugins/writeContext.ts', { context: {}, round: { openedAt: new Date('2030-05-01T07:00:00Z') } }],
  ['contract/places.ts', {}],
  ['web/pieces/drawerCsv.ts', { made: [2.35, 2.4] }],
  ['web/app/writeCsv.ts', {}],
  [
    'web/app/readCsv.ts',
    { headings: { size: 'size', count: 'count' }, row: z.object({ size: z.string(), count: z.string() }) },
  ],
  ['web/app/sentence.ts', {}],
  ['web/instruments/bladesTyped.ts', {}],
  ['web/app/picture.ts', {}],
];

describe('the examples beside the core', () => {
  it.each(FILES)('of %s run, and give what is said of them', async (file, more) => {
    vi.useFakeTimers({ now: new Date('2031-01-01T09:00:00Z'), toFake: ['Date'] });
    const names = { ...((await import(new URL(file, ROOT).href)) as Record<string, unknown>), ...more };
    const examples = examplesIn(readFileSync(new URL(file, ROOT), 'utf8'));
    expect(examples.length, file).toBeGreaterThan(0);
    for (const { code, meant } of examples) {
      const value = run(code, names);
      if (meant) expectSaid(value, meant.value, code);
    }
    vi.useRealTimers();
  });
});
