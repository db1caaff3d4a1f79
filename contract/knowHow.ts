import { z } from 'zod';
import { stageKey } from './stages.ts';
import { id, moment, passage, takenAt, version } from './values.ts';

/** Where a note of the shop's stands. */
const ABOUT = ['stage', 'cover', 'stop'] as const;

/** Something the shop learned of a pattern, shown at its stage on every build of it. */
export const knowHowRow = z.object({
  id,
  sheetId: id,
  stage: stageKey,
  /** where it stands: at its stage, with the cover wherever that comes off or goes on, or at a stop */
  about: z.enum(ABOUT),
  /** of a stop: crank degrees */
  crankAngle: z.number().nullable(),
  text: z.string(),
  by: z.string(),
  at: moment,
  /** a lead took it away */
  dropped: z.boolean(),
  version,
});
export type KnowHowRow = z.infer<typeof knowHowRow>;

export const newKnowHow = z
  .object({
    stage: stageKey,
    text: passage(300),
    about: z.enum(ABOUT).default('stage'),
    crankAngle: z.number().min(0).max(719.999).nullable().default(null),
    takenAt,
  })
  .refine(({ about, crankAngle }) => (about === 'stop') === (crankAngle !== null), {
    path: ['crankAngle'],
    error: 'a stop is named by its degrees, and nothing else is',
  });
export type NewKnowHow = z.input<typeof newKnowHow>;

export const knowHowChange = z.object({ version, text: passage(300), dropped: z.boolean() });
export type KnowHowChange = z.infer<typeof knowHowChange>;
