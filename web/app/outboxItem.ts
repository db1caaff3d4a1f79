import type { ProblemBody } from '@zero-lash/contract/problems';

/** Something written at the bench that the server does not have yet. Its key is its row's id, so it is written once. */
export interface OutboxItem {
  readonly key: string;
  /** in the order it was done */
  readonly order: number;
  readonly personId: string;
  readonly by: string;
  /** empty where it belongs to no build: a figure off a meter */
  readonly buildId: string;
  /** what kind of row it brings */
  readonly kind: string;
  /** the part of the build it belongs to: a round, a recheck; null where it is the build's own */
  readonly within: string | null;
  /** what it is about, in a word or two: a point, a check */
  readonly about: string;
  /** what was written, as a person would say it */
  readonly said: string;
  readonly method: 'POST' | 'PUT';
  readonly path: string;
  /** when it was done, by this device's clock */
  readonly takenAt: string;
  readonly body: unknown;
  /** what the server would not have; null while it waits to be sent */
  readonly refused: ProblemBody | null;
  /** by which release of the program it was refused; not in what was kept before that was asked */
  readonly refusedBy?: string | null;
}
