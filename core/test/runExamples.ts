import { transpile } from 'typescript';
import { expect } from 'vitest';

/** Every example of a file: what is written, and what it gives where that is said as a value; a remark is not held to anything. */
export const examplesIn = (text: string) =>
  [...text.matchAll(/@example ([\s\S]*?)\n\s*\*(?:\/|\s*@|\s*\n)/g)].map(([, raw]) => {
    const [code = '', said] = raw!
      .replace(/\n\s*\* ?/g, ' ')
      .trim()
      .split(' // ');
    return { code, meant: valueOf(said) };
  });

/** Runs a piece of TypeScript among what it may name. */
export const run = (code: string, names: Readonly<Record<string, unknown>>): unknown =>
  new Function(
    ...Object.keys(names),
    `${transpile(`const answer = (${code.replace(/;$/, '')})`)}\nreturn answer;`,
  )(...Object.values(names));

/** The value that a remark is; undefined where it says something else. */
function valueOf(said: string | undefined): { readonly value: unknown } | undefined {
  // a list that is cut short is a remark too
  if (said?.includes('…')) return undefined;
  try {
    return said === undefined ? undefined : { value: run(said, {}) };
  } catch {
    return undefined;
  }
}

/** Holds a value to what is said of it: numbers to the digits that are written, of an object what is named. */
export function expectSaid(value: unknown, said: unknown, at: string): void {
  if (typeof said === 'number' && Number.isFinite(said)) {
    const digits = /\.(\d+)$/.exec(String(said))?.[1]?.length ?? 0;
    expect(Math.abs((value as number) - said), at).toBeLessThanOrEqual(10 ** -digits * 0.5001);
  } else if (Array.isArray(said)) {
    expect(value, at).toHaveLength(said.length);
    said.forEach((each, index) => expectSaid((value as unknown[])[index], each, at));
  } else if (typeof said === 'object' && said !== null)
    for (const [key, each] of Object.entries(said))
      expectSaid((value as Record<string, unknown>)[key], each, at);
  else expect(value, at).toBe(said);
}
