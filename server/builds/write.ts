import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import type { LiveEvent } from '@zero-lash/contract/live';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Knex } from 'knex';
import { announce } from '../live/bus.ts';
import { writeOnce, type Kept } from '../plugins/writes.ts';
import { seqOf } from './read.ts';
import { readAgain, rowNameOf, type RowName } from './rooms.ts';

/** What PostgreSQL passes on in one notification, less some room. */
const MOST_TOLD_BYTES = 7000;

interface KeptWrite {
  readonly build: string;
  readonly rows: readonly RowName[];
}

/** Of an answer only which rows it brought is kept: a retry gets them as they are then. */
const KEPT: Kept<BuildWrite> = {
  of: ({ build, changes }): KeptWrite => ({
    build,
    rows: changes.map(rowNameOf).filter((row) => row !== null),
  }),
  again: async (db, { build, rows }: KeptWrite) => {
    const seq = await seqOf(db, build);
    return { build, seq, changes: await readAgain(db, build, rows) };
  },
};

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

/**
 * Does one write in a build once, tells whoever looks at it, and answers with the rows it brought.
 *
 * @param work gives the write's own answer first; what it changed in other builds follows, and is only told
 */
export function writeBuild(
  request: FastifyRequest,
  reply: FastifyReply,
  status: number,
  work: (transaction: Knex.Transaction) => Promise<BuildWrite | readonly [BuildWrite, ...BuildWrite[]]>,
): Promise<BuildWrite> {
  return writeOnce(
    request.server.db,
    request,
    reply,
    status,
    async (transaction) => {
      const told = [await work(transaction)].flat() as BuildWrite[];
      await announce(transaction, ...told.map(toldOf));
      return told[0]!;
    },
    KEPT,
  );
}
