import type { BuildView } from './buildView.ts';
import { STAGE_KEYS, type StageKey } from '@zero-lash/core/builds';
import type { ComponentType } from 'react';
import { Rechecks } from '../rechecks/Rechecks.tsx';
import { AimChoice } from '../setting/AimChoice.tsx';
import { SignOff } from '../signoff/SignOff.tsx';

type OfBuild = ComponentType<{ readonly build: BuildView }>;

/** What a stage's own room brings to the build's page, which knows no stage by its name. */
export interface StageRoom {
  /** stands above the head */
  readonly Above?: OfBuild;
  /** stands before the selected point, whose panel is then below it */
  readonly First?: OfBuild;
  /** stands after everything else */
  readonly Last?: OfBuild;
}

const ROOMS: Partial<Record<StageKey, StageRoom>> = {
  set: { Above: AimChoice },
  close: { First: SignOff },
  'run-in': { First: Rechecks, Last: SignOff },
};

/** Each stage with what its room brings. */
export const STAGE_ROOMS = Object.fromEntries(STAGE_KEYS.map((key) => [key, ROOMS[key] ?? {}])) as Record<
  StageKey,
  StageRoom
>;
