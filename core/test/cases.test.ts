import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compute, OPERATIONS } from '../compute.ts';

const FOLDER = new URL('./cases/', import.meta.url);
const TOLERANCE = 1e-6;

/** Compares an answer with what is expected of it: every field named, numbers within the tolerance. */
function expectLike(actual: unknown, expected: unknown, at: string): void {
  if (typeof expected === 'number') {
    expect(typeof actual, at).toBe('number');
    expect(Math.abs((actual as number) - expected), at).toBeLessThanOrEqual(TOLERANCE);
  } else if (Array.isArray(expected)) {
    expect(actual, at).toHaveLength(expected.length);
    expected.forEach((item, index) => expectLike((actual as unknown[])[index], item, `${at}[${index}]`));
  } else if (expected !== null && typeof expected === 'object') {
    for (const [key, value] of Object.entries(expected))
      expectLike((actual as Record<string, unknown> | null)?.[key], value, `${at}.${key}`);
  } else expect(actual, at).toEqual(expected);
}

describe.each(readdirSync(FOLDER))('worked cases of %s', (file) => {
  // a file of harder cases runs the operation it is named after
  const operation = file.replace(/(-hard)?\.json$/, '');
  const cases = JSON.parse(readFileSync(new URL(file, FOLDER), 'utf8')) as {
    input: unknown;
    expected: unknown;
  }[];

  it.each(cases.map((worked, index) => [index, worked] as const))('case %i', (_index, worked) => {
    expect(OPERATIONS).toHaveProperty(operation);
    expectLike(compute(operation, worked.input), worked.expected, operation);
  });
});
