import type { BuildView } from '@zero-lash/contract/builds';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Knex } from 'knex';
import { writeAndTell, type Kept } from '../plugins/writes.ts';
import { changedBuild } from './store.ts';
import { viewBuild } from './view.ts';

/** Of a build's answer only its id is kept for a retry, which gets the build as it stands then. */
const KEPT: Kept<BuildView> = {
  of: ({ id }) => ({ id }),
  again: (db, { id }: { readonly id: string }) => viewBuild(db, id),
};

/** Does one write in a build once, tells whoever looks at it, and answers with the build. */
export function writeBuild(
  request: FastifyRequest,
  reply: FastifyReply,
  status: number,
  work: (transaction: Knex.Transaction) => Promise<BuildView>,
): Promise<BuildView> {
  return writeAndTell(request.server.db, request, reply, changedBuild, status, work, KEPT);
}
