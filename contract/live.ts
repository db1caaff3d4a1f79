import { z } from 'zod';
import { buildWrite } from './builds.ts';
import { id } from './values.ts';

/** What a write may change that pages other than a build's show: a browser asks again for what it shows of it. */
export const TOPICS = [
  /** builds opened, moved, signed, closed, and rechecks done in them */
  'bench',
  /** what is read, ticked or set in a build that a browser does not follow row by row */
  'work',
  'engines',
  'owners',
  'usage',
  'rechecks',
  'sheets',
  'tools',
  'gauges',
  'drawer',
  'people',
  'shop',
  'know-how',
  'feeds',
  'letters',
] as const;
export type Topic = (typeof TOPICS)[number];

/** What comes live from the server to a browser that has asked. */
export const liveEvent = z.discriminatedUnion('kind', [
  /** how far a build is, told as a stream begins: what is older may not have been heard */
  z.object({ kind: z.literal('here'), build: id, seq: z.int() }),
  /** as a stream begins: for so many ms nothing was changed that pages show, as far as this server has heard */
  z.object({ kind: z.literal('quiet'), ms: z.int() }),
  buildWrite.extend({ kind: z.literal('build') }),
  z.object({
    kind: z.literal('changed'),
    topics: z.array(z.enum(TOPICS)),
    /** the key of the write that did it, so that whoever sent it need not ask again; null where no person wrote */
    write: id.nullable(),
  }),
  z.object({
    kind: z.literal('gauge'),
    instrument: id,
    device: id,
    /** mm as it came; null for a line that could not be read */
    value: z.number().nullable(),
    /** as the gauge wrote it */
    text: z.string(),
    /** what went wrong: a cut line, or presses that were lost before this one */
    trouble: z.enum(['none', 'unreadable', 'lost-before']),
  }),
  z.object({ kind: z.literal('gauge-link'), instrument: id, connected: z.boolean() }),
]);
export type LiveEvent = z.infer<typeof liveEvent>;
