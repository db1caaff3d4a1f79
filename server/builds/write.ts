import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import type { LiveEvent, Topic } from '@zero-lash/contract/live';
import type { Kept } from '../plugins/writes.ts';
import { seqOf } from './read.ts';
import { readRows, rowNameOf, type RowName } from './registry.ts';

/** What PostgreSQL passes on in one notification, less some room. */
const MOST_TOLD_BYTES = 7000;

interface KeptWrite {
  readonly build: string;
  readonly rows: readonly RowName[];
}

/** Of an answer only which rows it brought is kept: a retry gets them as they are then. */
export const KEPT_WRITE: Kept<BuildWrite> = {
  of: ({ build, changes }): KeptWrite => ({
    build,
    rows: changes.map(rowNameOf).filter((row) => row !== null),
  }),
  again: async (db, { build, rows }: KeptWrite) => {
    const seq = await seqOf(db, build);
    return { build, seq, changes: await readRows(db, build, rows) };
  },
};

/** What a write in a build changes that other pages show: how far it is, and what a setting took out of the drawer. */
export function topicsOf(changes: readonly BuildRowChange[]): Topic[] {
  const kinds = new Set(changes.map(({ kind }) => kind));
  return [
    ...(kinds.has('head') || kinds.has('recheck') ? (['bench'] as const) : []),
    ...(kinds.has('setting') ? (['drawer'] as const) : []),
    // what is learned of a pattern stands in every build of it
    ...(kinds.has('know-how') ? (['know-how'] as const) : []),
  ];
}

/** What is told of a write: its rows, or only their kinds where they are too large to be told. */
export function toldOf({ build, seq, changes }: BuildWrite): LiveEvent {
  const told: LiveEvent = { kind: 'build', build, seq, changes };
  if (Buffer.byteLength(JSON.stringify(told)) < MOST_TOLD_BYTES) return told;
  return {
    kind: 'build',
    build,
    seq,
    changes: changes.map(({ kind }): BuildRowChange => ({ kind, row: null })),
  };
}
