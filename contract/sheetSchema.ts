import { z } from 'zod';
import { sheetFile } from './sheets.ts';

/**
 * The JSON Schema of a spec sheet file, made from the Zod schema that reads it. What one field says of another (cylinder
 * names, least under greatest) only the Zod schema checks.
 */
export function sheetSchema(): object {
  return z.toJSONSchema(sheetFile, { io: 'input', unrepresentable: 'any' });
}
