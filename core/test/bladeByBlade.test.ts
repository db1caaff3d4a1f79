import { describe, expect, it } from 'vitest';
import { goNoGo, nextByBlade, type Try } from '../measuring/index.ts';

const blades = [0.1, 0.12, 0.15, 0.2, 0.25, 0.3];
const pairOf = (min: number, max: number) => goNoGo({ blades, maxStack: 1, spec: { min, max } })!;
const INTAKE = pairOf(0.15, 0.2);
const EXHAUST = pairOf(0.2, 0.25);

/** Feels every point of a stop, each as wide as is said, as the walk sends the hand. */
function felt(gaps: Readonly<Record<string, number>>) {
  const tries = new Map<string, Try[]>(Object.keys(gaps).map((key) => [key, []]));
  const walked: [string, number][] = [];
  for (let held: number | null = null, from: string | null = null; walked.length < 99;) {
    const points = [...tries].map(([key, made]) => ({
      ...{ key, tries: made, pair: key.includes('I') ? INTAKE : EXHAUST },
    }));
    const next = nextByBlade(points, held, from);
    if (next === null) break;
    walked.push([next.key, next.thickness]);
    tries.get(next.key)!.push({
      thickness: next.thickness,
      result: gaps[next.key]! > next.thickness ? 'goes' : 'wont',
    });
    held = next.thickness;
    from = next.key;
  }
  return walked;
}

describe('one blade over all points of a stop', () => {
  it('takes a blade up once: what an intake must not let in is what an exhaust must', () => {
    const walked = felt({ '1I': 0.18, '1E': 0.22, '2I': 0.18, '3E': 0.23 });
    expect(walked).toEqual([
      ['1I', 0.15],
      ['2I', 0.15],
      ['1I', 0.2],
      ['1E', 0.2],
      ['2I', 0.2],
      ['3E', 0.2],
      ['1E', 0.25],
      ['3E', 0.25],
    ]);
    const changes = walked.filter(([, blade], index) => blade !== walked[index - 1]?.[1]);
    expect(changes).toHaveLength(3);
  });

  it('asks no second blade of what failed at its first', () => {
    expect(felt({ '1I': 0.11, '2I': 0.18 })).toEqual([
      ['1I', 0.15],
      ['2I', 0.15],
      ['2I', 0.2],
    ]);
  });
});
