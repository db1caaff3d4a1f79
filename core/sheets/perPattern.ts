import type { Pattern } from './pattern.ts';

/**
 * Has what follows from a pattern alone worked out once for each: everything that judges an engine asks for it, point by point.
 * A pattern is never changed in place, only replaced by another.
 *
 * @param make what is made of a pattern and of names; nobody may change what it gives
 * @example lashPoints(inlineFour) === lashPoints(inlineFour) // true
 */
export function perPattern<Names extends readonly string[], Made>(
  make: (pattern: Pattern, ...names: Names) => Made,
): (pattern: Pattern, ...names: Names) => Made {
  const known = new WeakMap<Pattern, Map<string, Made>>();
  return (pattern, ...names) => {
    let made = known.get(pattern);
    if (!made) known.set(pattern, (made = new Map()));
    const key = names.join('\n');
    if (!made.has(key)) made.set(key, make(pattern, ...names));
    return made.get(key)!;
  };
}
