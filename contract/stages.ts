import { STAGE_KEYS } from '@zero-lash/core/builds';
import { z } from 'zod';

export const stageKey = z.enum(STAGE_KEYS);
