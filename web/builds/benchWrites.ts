import type { NoteRequest, TickRequest } from '@zero-lash/contract/builds';
import type { NewHeadWork } from '@zero-lash/contract/headwork';
import type { NewKnowHow } from '@zero-lash/contract/knowHow';
import type { NewConditions, NewReading } from '@zero-lash/contract/measuring';
import type { NewLedger } from '@zero-lash/contract/parts';
import type { DroppedPhotograph, NewPhotograph } from '@zero-lash/contract/photographs';
import type { NewRan } from '@zero-lash/contract/ran';
import type { NewSetting, SettingTakenBack } from '@zero-lash/contract/setting';
import type { Turning } from '@zero-lash/contract/turning';
import type { NewWear } from '@zero-lash/contract/wear';
import { checkInWords } from '@zero-lash/core/builds';
import type { Sent as SentItem } from '../app/useOutbox.ts';

/** Everything a person writes at the bench, which needs no server to be done. */
export type BenchWrite =
  | {
      readonly kind: 'reading';
      readonly roundId: string;
      readonly body: NewReading;
      /** where it was not taken now */
      readonly takenAt?: string | undefined;
    }
  | { readonly kind: 'conditions'; readonly roundId: string; readonly body: NewConditions }
  | { readonly kind: 'turning'; readonly roundId: string; readonly body: Turning }
  | { readonly kind: 'setting'; readonly body: NewSetting }
  | {
      readonly kind: 'setting-taken-back';
      readonly id: string;
      readonly point: string;
      readonly body: SettingTakenBack;
    }
  | { readonly kind: 'tick'; readonly body: TickRequest }
  | { readonly kind: 'note'; readonly body: NoteRequest }
  /** `about` names the cell or the part, as a person finds it again */
  | { readonly kind: 'wear'; readonly about: string; readonly body: NewWear }
  | { readonly kind: 'headwork'; readonly about: string; readonly body: NewHeadWork }
  | { readonly kind: 'ledger'; readonly about: string; readonly body: NewLedger }
  | { readonly kind: 'ran'; readonly about: string; readonly body: NewRan }
  | { readonly kind: 'photograph'; readonly body: NewPhotograph }
  | { readonly kind: 'photograph-dropped'; readonly id: string; readonly body: DroppedPhotograph }
  | { readonly kind: 'know-how'; readonly body: NewKnowHow }
  | { readonly kind: 'round'; readonly recheckId: string; readonly sequence: number };

type Sent = Omit<SentItem, 'buildId'>;

const CHECK_WORDS = 24;
const shortened = (text: string) => (text.length > CHECK_WORDS ? `${text.slice(0, CHECK_WORDS)}…` : text);

/** How something written in a build is sent, and what it is called while it waits. */
export function sentAs(buildId: string, write: BenchWrite): Sent {
  const { kind } = write;
  switch (kind) {
    case 'reading': {
      const { point, asTyped } = write.body;
      return {
        ...inRound(write.roundId, 'readings'),
        ...{ kind, about: point, said: asTyped, body: write.body, takenAt: write.takenAt },
      };
    }
    case 'conditions':
      return {
        ...inRound(write.roundId, 'conditions'),
        kind,
        about: 'conditions',
        said: 'What the round is taken under',
        body: write.body,
      };
    case 'turning':
      return {
        ...inRound(write.roundId, 'turning'),
        method: 'PUT',
        kind,
        about: 'the crank',
        said: 'Where the crank stands',
        body: write.body,
      };
    case 'setting': {
      const { point } = write.body;
      return {
        ...inBuild(buildId, 'settings'),
        kind,
        about: `${point} set`,
        said: `The setting of ${point}`,
        body: write.body,
      };
    }
    case 'setting-taken-back':
      return {
        ...inBuild(buildId, `settings/${write.id}/taken-back`),
        kind,
        within: write.id,
        about: `${write.point} set`,
        said: `Taking back what was set at ${write.point}`,
        body: write.body,
      };
    case 'tick': {
      const { stage, check } = write.body;
      const text = checkInWords(stage, check);
      return {
        ...inBuild(buildId, 'ticks'),
        kind,
        about: `“${shortened(text)}”`,
        said: `The tick of “${text}”`,
        body: write.body,
      };
    }
    case 'note':
      return {
        ...inBuild(buildId, 'notes'),
        kind,
        about: 'a note',
        said: `“${write.body.text}”`,
        body: write.body,
      };
    case 'wear':
      return { ...inBuild(buildId, 'wear'), kind, about: write.about, said: write.about, body: write.body };
    case 'headwork':
      return {
        ...inBuild(buildId, 'headwork'),
        kind,
        about: write.about,
        said: write.about,
        body: write.body,
      };
    case 'ledger':
      return { ...inBuild(buildId, 'ledger'), kind, about: write.about, said: write.about, body: write.body };
    case 'ran':
      return { ...inBuild(buildId, 'ran'), kind, about: write.about, said: write.about, body: write.body };
    case 'photograph': {
      const { about } = write.body;
      const said = about === '' ? 'A photograph' : `The photograph of ${about}`;
      return { ...inBuild(buildId, 'photographs'), kind, about: 'a photograph', said, body: write.body };
    }
    case 'photograph-dropped':
      return {
        ...inBuild(buildId, `photographs/${write.id}`),
        method: 'PUT',
        kind,
        within: write.id,
        about: 'a photograph',
        said: 'Whether a photograph is shown',
        body: write.body,
      };
    case 'know-how':
      return {
        ...inBuild(buildId, 'know-how'),
        kind,
        about: 'what was learned',
        said: `“${write.body.text}”`,
        body: write.body,
      };
    case 'round':
      return {
        method: 'POST',
        path: `rechecks/${write.recheckId}/round`,
        within: write.recheckId,
        kind,
        about: `recheck ${write.sequence}`,
        said: `The beginning of recheck ${write.sequence}`,
        body: { sequence: write.sequence },
      };
  }
}

const inRound = (roundId: string, part: string) => ({
  method: 'POST' as const,
  path: `rounds/${roundId}/${part}`,
  within: roundId,
});

const inBuild = (buildId: string, part: string) => ({
  method: 'POST' as const,
  path: `builds/${buildId}/${part}`,
  within: null,
});
