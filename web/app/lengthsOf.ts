import type { z } from 'zod';

interface Def {
  readonly type: string;
  readonly innerType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  readonly in?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly shape?: Readonly<Record<string, z.core.$ZodType>>;
}

/**
 * Lists how long the texts of a schema may be, by their paths, with `#` for a place in a list: a field takes no more as it is typed than
 * it would be refused for. A list of texts is typed as one text, and has no length here.
 *
 * @example lengthsOf(z.object({ name: z.string().max(60), of: z.array(z.object({ say: z.string().max(9) })) })) // { name: 60, 'of.#.say': 9 }
 */
export function lengthsOf(schema: z.core.$ZodType): Readonly<Record<string, number>> {
  const lengths: Record<string, number> = {};
  const walk = (of: z.core.$ZodType, path: readonly string[]): void => {
    const { type, ...def } = of._zod.def as unknown as Def;
    if (type === 'string') {
      const most = (of as z.ZodString).maxLength;
      if (most !== null && path.at(-1) !== '#') lengths[path.join('.')] = most;
      return;
    }
    for (const [field, each] of Object.entries(def.shape ?? {})) walk(each, [...path, field]);
    if (def.element) walk(def.element, [...path, '#']);
    for (const each of [def.innerType, def.in, ...(def.options ?? [])]) if (each) walk(each, path);
  };
  walk(schema, []);
  return lengths;
}
