import type { Round } from '@zero-lash/contract/measuring';
import type { OutboxItem } from '../app/outboxItem.ts';

/** A round as this device has it: what the server has, with what is pending applied to it. */
export interface RoundHere extends Round {
  /** points whose newest reading is not sent yet */
  readonly waiting: ReadonlySet<string>;
}

/**
 * Says of a round's points which have a reading that is not sent yet.
 *
 * @param beside a round whose readings are shown with it
 */
export function roundHere(
  round: Round,
  items: readonly OutboxItem[],
  beside: Round | undefined = undefined,
): RoundHere {
  const of: readonly (string | null | undefined)[] = [round.id, beside?.id];
  const waiting = items.filter(
    ({ kind, within, refused }) => kind === 'reading' && of.includes(within) && refused === null,
  );
  return { ...round, waiting: new Set(waiting.map(({ about }) => about)) };
}

/** A round as a second person sees it who must not see the first one's results. */
export function withoutOthers<Shown extends Round>(round: Shown, me: string): Shown {
  return { ...round, readings: round.readings.filter(({ by, blind }) => by === me && blind) };
}
