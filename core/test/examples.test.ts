import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { WORLD } from './exampleWorld.ts';
import { examplesIn, expectSaid, run } from './runExamples.ts';

const ROOT = new URL('../', import.meta.url);
/** What is run by itself, and not asked. */
const PROGRAMS = new Set(['shell.ts', 'compute.ts']);
const FILES = readdirSync(ROOT, { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.ts') && !/^(test|node_modules)\//.test(name) && !PROGRAMS.has(name))
  .toSorted();

describe('the examples of the core', async () => {
  const names: Record<string, unknown> = {};
  for (const file of FILES)
    Object.assign(names, (await import(new URL(file, ROOT).href)) as Record<string, unknown>);
  Object.assign(names, WORLD);
  const withExamples = FILES.map(
    (file) => [file, examplesIn(readFileSync(new URL(file, ROOT), 'utf8'))] as const,
  ).filter(([, examples]) => examples.length > 0);

  it.each(withExamples)('of %s run, and give what is said of them', (_file, examples) => {
    for (const { code, meant } of examples) {
      const value = run(code, names);
      if (meant) expectSaid(value, meant.value, code);
    }
  });

  it('are as many as there are, and most say what they give', () => {
    const all = withExamples.flatMap(([, examples]) => examples);
    expect(all.length).toBeGreaterThan(280);
    expect(all.filter(({ meant }) => meant).length).toBeGreaterThan(all.length * 0.75);
  });
});
