import { z } from 'zod';
import { remarks, version } from './values.ts';

/** A signature names what it signs: everything written in the build up to `seq`, and nothing that came in after. */
export const signOffRequest = z.object({ version, seq: z.int().min(0), statement: remarks(500).default('') });
export type SignOffRequest = z.input<typeof signOffRequest>;
