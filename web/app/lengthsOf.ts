import type { z } from 'zod';

interface Def {
  readonly type: string;
  readonly innerType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  readonly in?: z.core.$ZodType;
  readonly out?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly shape?: Readonly<Record<string, z.core.$ZodType>>;
}

/**
 * Lists how long the texts of a schema may be, by the names of their fields, whatever they lie in: a field takes no more as it is
 * typed than it would be refused for. Where two fields are called
 * alike, it is the shorter one’s.
 *
 * @example lengthsOf(z.object({ name: z.string().max(60) })) // { name: 60 }
 */
export function lengthsOf(schema: z.core.$ZodType): Readonly<Record<string, number>> {
  const lengths: Record<string, number> = {};
  const walk = (of: z.core.$ZodType, name: string): void => {
    const { type, ...def } = of._zod.def as unknown as Def;
    if (type === 'string') {
      const most = (of as z.ZodString).maxLength;
      if (most !== null && name !== '') lengths[name] = Math.min(most, lengths[name] ?? most);
      return;
    }
    for (const [field, each] of Object.entries(def.shape ?? {})) walk(each, field);
    // a list of texts is typed as one text
    const inside = type === 'array' ? '' : name;
    for (const each of [def.innerType, def.element, def.in, ...(def.options ?? [])])
      if (each) walk(each, inside);
  };
  walk(schema, '');
  return lengths;
}
