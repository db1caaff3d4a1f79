import type { BuildRoom, BuildRowChange, BuildWrite, RowsOf } from '@zero-lash/contract/builds';
import { applyRow, roomOf } from './rooms.ts';

/** How long a number that was skipped may still come, by the other way that updates come in: an answer, or the stream. */
export const LATE_MS = 600;
/** How much of what came is kept, to apply it to what was asked for before it came. */
const MOST_KEPT = 400;

/** Rows as they were read, with how many writes the build had seen by then. */
export interface AsOf<Room extends BuildRoom> {
  readonly seq: number;
  readonly rows: RowsOf<Room>;
}

/** What follows of an update: rows to be applied, and whether the rooms have to be asked for again. */
export interface Applied {
  readonly changes: readonly BuildRowChange[];
  /** something was skipped: unless it comes soon, the build is asked for again */
  readonly gap: boolean;
}

/**
 * What this page has been told of one build: writes are numbered without a gap, so a number that is skipped is an update that was
 * missed. What comes twice, as an answer and live, is applied once; what comes in the wrong order is not taken back.
 */
export class UpdateSequence {
  /** everything up to it has come; null until a stream has said how far the build is */
  #upTo: number | null = null;
  readonly #above = new Set<number>();
  readonly #newest = new Map<string, number>();
  #kept: { readonly seq: number; readonly change: BuildRowChange }[] = [];

  /** Takes in what a write brought, from its answer or from the stream. */
  take({ seq, changes }: Pick<BuildWrite, 'seq' | 'changes'>): Applied {
    const fresh = changes.filter((change) => {
      const name = rowName(change);
      if ((this.#newest.get(name) ?? -1) >= seq) return false;
      this.#newest.set(name, seq);
      return true;
    });
    this.#kept = [...this.#kept, ...fresh.map((change) => ({ seq, change }))].slice(-MOST_KEPT);
    if (this.#upTo === null || seq <= this.#upTo) return { changes: fresh, gap: false };
    this.#above.add(seq);
    while (this.#above.delete(this.#upTo + 1)) this.#upTo += 1;
    return { changes: fresh, gap: this.#above.size > 0 };
  }

  /**
   * A stream begins, and says how far the build is.
   *
   * @returns what this page was not told of: nothing, something written since, or all of it, where the build is less far
   *   than this page knew it, as it is once the shop's records were put back to an earlier day
   */
  begin(seq: number): 'nothing' | 'something' | 'all' {
    const known = this.#upTo;
    this.#upTo = seq;
    if (known !== null && seq < known) {
      this.#newest.clear();
      this.#above.clear();
      this.#kept = [];
      return 'all';
    }
    for (const above of this.#above) if (above <= seq) this.#above.delete(above);
    return known === seq ? 'nothing' : 'something';
  }

  /** Up to which write of the build this page was told of everything; null where no stream has begun yet. */
  get upTo(): number | null {
    return this.#upTo;
  }

  /** The rooms are asked for again: what is skipped until now will be in them. */
  giveUpWaiting(): boolean {
    if (this.#above.size === 0 || this.#upTo === null) return false;
    this.#upTo = Math.max(...this.#above);
    this.#above.clear();
    return true;
  }

  /** Applies what came since rows were read to them: they may have been asked for before it was written. */
  over<Room extends BuildRoom>(room: Room, read: AsOf<Room>): AsOf<Room> {
    const later = this.#kept.filter(({ seq, change }) => seq > read.seq && roomOf(change.kind) === room);
    return { ...read, rows: later.reduce((rows, { change }) => applyRow<Room>(rows, change), read.rows) };
  }
}

const sequences = new Map<string, UpdateSequence>();

/** What this page has been told of a build. */
export function sequenceOf(buildId: string): UpdateSequence {
  let sequence = sequences.get(buildId);
  if (!sequence) sequences.set(buildId, (sequence = new UpdateSequence()));
  return sequence;
}

/** What a change's row is told from others by: what is told of the same row twice is told of one. */
function rowName({ kind, row }: BuildRowChange): string {
  if (row === null) return kind;
  if (kind === 'tick') return `tick ${row.stage}:${row.check}`;
  return `${kind} ${kind === 'turning' ? row.roundId : row.id}`;
}
