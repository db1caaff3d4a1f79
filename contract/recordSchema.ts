import { z } from 'zod';
import { recordFile } from './records.ts';

/**
 * The JSON Schema of an engine's record, made from the Zod schema that reads it. What one row says of another (that what it
 * refers to is in the file) only the reading of it checks.
 */
export function recordSchema(): object {
  return z.toJSONSchema(recordFile, { io: 'input', unrepresentable: 'any' });
}
