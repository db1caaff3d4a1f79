import { ProofTable } from '../signoff/ProofTable.tsx';
import type { StageKey } from '@zero-lash/core/builds';
import type { ComponentType } from 'react';
import { onDemand } from '../app/onDemand.tsx';
import type { BuildView } from '../builds/buildView.ts';
import type { AtPointProps } from '../builds/atPoint.ts';

type OfBuild = ComponentType<{ readonly build: BuildView }>;
/** What stands under a stage is told which one it is. */
type OfStage = ComponentType<{ readonly build: BuildView; readonly stage: StageKey }>;

/** What a stage's own room brings to the build's page, which knows no stage by its name. */
export interface StageRoom {
  /** stands above the head */
  readonly Above?: OfBuild;
  /** stands before the selected point, whose panel is then below it */
  readonly First?: OfBuild;
  /** stands in the selected point's panel */
  readonly AtPoint?: ComponentType<AtPointProps>;
  /** stands under what is ticked off at the stage */
  readonly Under?: OfStage;
  /** its own work comes first and takes the width, and the head is only shown */
  readonly wide?: boolean;
}

const TakeIn = onDemand(async () => (await import('./TakeIn.tsx')).TakeIn);
const OpenUp = onDemand(async () => (await import('./OpenUp.tsx')).OpenUp);
const Stripped = onDemand(async () => (await import('./Stripped.tsx')).Stripped);
const BudgetPanel = onDemand(async () => (await import('../headwork/BudgetPanel.tsx')).BudgetPanel);
const Closing = onDemand(async () => (await import('./Closing.tsx')).Closing);
const SignOff = onDemand(async () => (await import('../signoff/SignOff.tsx')).SignOff);
const Rechecks = onDemand(async () => (await import('../rechecks/Rechecks.tsx')).Rechecks);
const LetStand = onDemand(async () => (await import('../signoff/LetStand.tsx')).LetStand);
const SetPanel = onDemand(async () => (await import('../setting/SetPanel.tsx')).SetPanel);
const AboveSetting = onDemand(async () => (await import('../setting/AboveSetting.tsx')).AboveSetting);
const SettingForm = onDemand(async () => (await import('../setting/SettingForm.tsx')).SettingForm);

/** Each stage with what its room brings, which is fetched when the stage is first shown. */
export const STAGE_ROOMS: Readonly<Record<StageKey, StageRoom>> = {
  'take-in': { Under: TakeIn, wide: true },
  'open-up': { Under: OpenUp, wide: true },
  'as-found': {},
  wear: { Under: Stripped, wide: true },
  'head-work': { Under: BudgetPanel, wide: true },
  set: { Above: AboveSetting, AtPoint: SettingForm, Under: SetPanel },
  prove: { AtPoint: LetStand, Under: ProofTable },
  close: { Under: Closing },
  'run-in': { First: Rechecks, Under: SignOff },
};
