import { z } from 'zod';
import { stageKey } from './stages.ts';
import { id, moment, passage, takenAt, version } from './values.ts';

/** Something the shop learned of a pattern, shown at its stage on every build of it. */
export const knowHowRow = z.object({
  id,
  sheetId: id,
  stage: stageKey,
  text: z.string(),
  by: z.string(),
  at: moment,
  /** a lead took it away */
  dropped: z.boolean(),
  version,
});
export type KnowHowRow = z.infer<typeof knowHowRow>;

export const newKnowHow = z.object({ stage: stageKey, text: passage(300), takenAt });
export type NewKnowHow = z.input<typeof newKnowHow>;

export const knowHowChange = z.object({ version, text: passage(300), dropped: z.boolean() });
export type KnowHowChange = z.infer<typeof knowHowChange>;
