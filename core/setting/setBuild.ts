import type { BuildState, RoundState, SettingState } from '../builds/index.ts';
import type { KnownGap, limitedPoints, ReadingState } from '../measuring/index.ts';
import type { MakersChart } from './makersChart.ts';
import type { Aim, OwnAim } from './target.ts';

/** A build, as far as setting its points goes; lengths in mm. */
export interface SetBuild extends Omit<BuildState, 'rounds' | 'settings' | 'sheet' | 'wear'> {
  readonly sheet: Omit<BuildState['sheet'], 'wearLimits'> &
    Required<Pick<BuildState['sheet'], 'wearLimits'>> &
    Parameters<typeof limitedPoints>[0] & {
      readonly pieceCharts?: readonly (MakersChart & { readonly role: string })[] | undefined;
    };
  readonly rounds: readonly (Omit<RoundState, 'readings'> & {
    readonly readings: readonly (ReadingState & KnownGap)[];
  })[];
  readonly settings: readonly PieceSetting[];
  readonly wear: NonNullable<BuildState['wear']>;
  readonly aim: Aim;
  readonly ownAims: { readonly figures: readonly OwnAim[] } | null;
}

/** What was done at a point, with the pieces where it was one that was fitted; mm. */
interface PieceSetting extends SettingState {
  readonly installed: number | null;
  readonly fitted: number | null;
  /** where what was fitted came from, and where what was taken out went */
  readonly from: string;
  readonly to: string;
  readonly giver: string | null;
}
