import { z } from 'zod';
import { engineRow } from './engines.ts';
import { round } from './measuring.ts';
import { pastRecheck } from './rechecks.ts';
import { aim, setting } from './setting.ts';
import { sheetRevision } from './sheets.ts';
import { stageKey } from './stages.ts';
import { id, line, moment, passage, version } from './values.ts';

export const newBuild = z.object({ revisionId: id, complaint: passage(300) });
export type NewBuild = z.infer<typeof newBuild>;

export const stageMoveRequest = z.object({ to: stageKey, version });
export const tickRequest = z.object({ stage: stageKey, check: line(40), done: z.boolean() });
export const noteRequest = z.object({ stage: stageKey, text: passage(1000) });

export const buildChange = z.object({ version, complaint: passage(300), aim });
export type BuildChange = z.infer<typeof buildChange>;

/** Everything the bench sees of a build. */
export const buildView = z.object({
  id,
  number: z.int(),
  stage: stageKey,
  complaint: z.string(),
  aim,
  version,
  openedAt: moment,
  openedBy: z.string(),
  closedAt: moment.nullable(),
  engine: engineRow,
  sheet: sheetRevision,
  ticks: z.array(z.object({ stage: stageKey, check: z.string(), by: z.string(), at: moment })),
  notes: z.array(z.object({ id, stage: stageKey, text: z.string(), by: z.string(), at: moment })),
  rounds: z.array(round),
  settings: z.array(setting),
  signOff: z.object({ by: z.string(), at: moment, usage: z.number(), statement: z.string() }).nullable(),
  rechecks: z.array(pastRecheck),
});
export type BuildView = z.infer<typeof buildView>;
