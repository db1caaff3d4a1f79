import type { z } from 'zod';

/**
 * Makes what reads a kind of stored JSON: by the format that stands beside it, and never unlooked at.
 *
 * @param what it is, for whoever has to find out why one cannot be read
 * @param formats the schema of each format there ever was; what an older one reads is brought to the newest by its schema
 * @example const parsePattern = stored('a pattern', { 1: patternSchema }); parsePattern(row.format, row.pattern)
 */
export function stored<Schema extends z.ZodType>(
  what: string,
  formats: Readonly<Record<number, Schema>>,
): (format: number, value: unknown) => z.output<Schema> {
  return (format, value) => {
    const schema = formats[format];
    if (!schema) throw new Error(`${what} is stored in format ${format}, which this version does not know`);
    const read = schema.safeParse(value);
    if (!read.success)
      throw new Error(`${what} stored in format ${format} cannot be read: ${read.error.message}`);
    return read.data;
  };
}
