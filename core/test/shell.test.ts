import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

function shell(args: readonly string[], input = '') {
  const run = spawnSync(process.execPath, ['scripts/compute.mjs', ...args], {
    cwd: ROOT,
    input,
    encoding: 'utf8',
  });
  return { status: run.status, out: run.stdout, error: run.stderr };
}

describe('the compute command', () => {
  it('lists its operations, one a line', () => {
    const { status, out } = shell([]);
    expect(status).toBe(0);
    expect(out.trim().split('\n')).toEqual(expect.arrayContaining(['assess', 'parse-length', 'screw-turn']));
  });

  it('answers one input with one result and an array with an array in the same order', () => {
    const input = { text: '6 thou', defaultUnit: 'mm' };
    expect(JSON.parse(shell(['parse-length'], JSON.stringify(input)).out).mm).toBeCloseTo(0.1524, 9);
    const many = shell(['parse-length'], JSON.stringify([input, { ...input, text: 'x' }]));
    expect(JSON.parse(many.out)).toMatchObject([{ unit: 'thou' }, { error: 'not a length' }]);
  });

  it('refuses with 2 and one line naming the field', () => {
    const bad = { spec: { min: 0.1, max: 0.2 }, reading: { kind: 'bracket', go: 'thin', noGo: 0.2 } };
    const refused = [
      [shell(['assess'], JSON.stringify(bad)), /reading\.go/],
      [shell(['assess'], JSON.stringify([bad])), /\[0\] reading\.go/],
      [shell(['assess'], '{'), /not JSON/],
      [shell(['polish'], '{}'), /unknown operation “polish”/],
    ] as const;
    for (const [{ status, out, error }, words] of refused) {
      expect(status).toBe(2);
      expect(out).toBe('');
      expect(error).toMatch(words);
      expect(error.trim().split('\n')).toHaveLength(1);
    }
  });
});
