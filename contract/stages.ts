import { JOB_KEYS, STAGE_KEYS } from '@zero-lash/core/builds';
import { z } from 'zod';

export const stageKey = z.enum(STAGE_KEYS);
/** What is done to an engine: its stages follow from it. */
export const jobKey = z.enum(JOB_KEYS);
