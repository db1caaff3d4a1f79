import { z } from 'zod';
import { stageKey } from './stages.ts';
import { id, moment, remark, takenAt } from './values.ts';

/** The largest file that is taken, in bytes, and what that is as text. */
export const MOST_PHOTO_BYTES = 12_000_000;
export const MOST_PHOTO_TEXT = Math.ceil(MOST_PHOTO_BYTES / 3) * 4;

/** A photograph of a build: what it is of, and how large it is kept. Its picture is fetched by itself. */
export const photographRow = z.object({
  id,
  stage: stageKey,
  /** a place, a part, or what a person calls it */
  about: z.string(),
  note: z.string(),
  /** the damage on the wear sheet that it shows, by the name that keeps it there; empty where it shows none */
  shows: z.string(),
  width: z.int(),
  height: z.int(),
  by: z.string(),
  at: moment,
  /** taken away again */
  dropped: z.boolean(),
});
export type PhotographRow = z.infer<typeof photographRow>;

/** A picture as a device sends it: base64 of the file itself. */
export const newPhotograph = z.object({
  stage: stageKey,
  about: remark(40),
  note: remark(200),
  shows: remark(120).default(''),
  file: z
    .base64()
    .min(8, { error: 'there is no picture in it' })
    .max(MOST_PHOTO_TEXT, { error: 'a picture of at most 12 MB goes here' }),
  takenAt,
});
export type NewPhotograph = z.input<typeof newPhotograph>;

export const droppedPhotograph = z.object({ dropped: z.boolean(), takenAt });
export type DroppedPhotograph = z.input<typeof droppedPhotograph>;
