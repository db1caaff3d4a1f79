import type { AssemblyStep, Fastening } from '../assembly/index.ts';
import type { Entry } from '../entries/index.ts';
import type { Conditions, Meant, ReadingState } from '../measuring/index.ts';
import type { LedgerLine } from '../parts/index.ts';
import type { Pattern } from '../sheets/index.ts';
import type { GivenLimit, WearLine } from '../wear/index.ts';
import type { JobKey } from './jobs.ts';
import type { RoundKind, StageKey } from './stages.ts';

/** The state of a build, as far as its stages go: pattern and sheet, checks, rounds, settings. Rounds are in the order they were opened. */
export interface BuildState {
  readonly job: JobKey;
  readonly stage: StageKey;
  readonly sheet: {
    readonly pattern: Pattern;
    readonly torques?: readonly Fastening[];
    readonly assembly?: readonly AssemblyStep[];
    readonly runIn?: RunInSays;
    readonly wearLimits?: readonly GivenLimit[];
    /** the roles it has limits for; left out where that is not asked about */
    readonly limits?: readonly { readonly role: string }[];
    /** what its figures hold for; left out where that is not asked about */
    readonly condition?: Meant['condition'];
    readonly temperature?: Meant['temperature'];
    /** after so many hours it is cold, where it does not say itself */
    readonly coldHours?: number;
    /** a hot sheet's engine that cannot be run is set cold in this build; null or left out where it is measured as the sheet says */
    readonly setCold?: { readonly foundHot: boolean } | null;
  };
  /** each check as it was last ticked, or unticked */
  readonly ticks: readonly CheckState[];
  readonly rounds: readonly RoundState[];
  readonly settings: readonly SettingState[];
  /** what was counted out and in; left out where that is not asked about */
  readonly ledger?: readonly Entry<LedgerLine>[];
  /** how much is proved again after a change, where the shop wants more than it disturbed */
  readonly provesAgain?: ProvesAgain;
  /** the shop lets a screw's reading after locking stand, where two turns follow without resistance */
  readonly lockedStands?: boolean;
  /** what is written down of its wear; left out where that is not asked about */
  readonly wear?: readonly Entry<WearLine>[];
  /** notes of its stages; left out where that is not asked about */
  readonly notes?: readonly { readonly stage: StageKey; readonly text: string }[];
  readonly signOff: object | null;
}

/** A check as it was last ticked or unticked. */
export interface CheckState {
  readonly stage: StageKey;
  readonly check: string;
  readonly done: boolean;
  readonly at: string;
  /** when it was ticked before, and taken back since */
  readonly earlier?: readonly string[];
}

/** A round: the reading that stands at each point. */
export interface RoundState {
  readonly kind: RoundKind;
  /** the recheck whose finding this build was opened for */
  readonly carried?: boolean;
  /** what it was taken under, as it was said, the last last; left out where that is not asked about */
  readonly conditions?: readonly Conditions[];
  readonly readings: readonly ReadingState[];
}

/** What was done at a point: the newest of it. */
export interface SettingState {
  readonly point: string;
  /** left alone on purpose, it changes nothing */
  readonly kind: 'turned' | 'fitted' | 'left' | 'bare';
  /** why it was left alone: by choice where nothing else is said */
  readonly cause?: 'chosen' | 'unreached' | 'apart';
  readonly at: string;
  /** the point whose piece it was until then */
  readonly giver?: string | null;
}

/** How much is proved again after a change at a point: what it bears on, or more where the shop says so. */
export type ProvesAgain = 'disturbed' | 'cylinder' | 'head' | 'every-point';

/** What a sheet says of an engine's first hours, before it is signed off. */
export interface RunInSays {
  /** how often it is run hot and left to go cold */
  readonly heatCycles: number;
  /** the head is tightened again after them, cold: only where the sheet asks for it */
  readonly retorque: boolean;
}
