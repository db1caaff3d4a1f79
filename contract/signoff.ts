import { z } from 'zod';
import { remarks, version } from './values.ts';

export const signOffRequest = z.object({ version, statement: remarks(500).default('') });
export type SignOffRequest = z.input<typeof signOffRequest>;
