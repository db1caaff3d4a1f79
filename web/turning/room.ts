import type { Turning } from '@zero-lash/contract/turning';
import { toRound, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    turning: { readonly roundId: string; readonly body: Turning };
  }
}

export const turningWrite: WriteOfRoom<'turning', 'turning'> = {
  brings: 'turning',
  replaces: true,
  send: (_buildId, { roundId, body }) => ({
    ...toRound(roundId, 'turning'),
    ...{ method: 'PUT', about: 'the crank', said: 'Where the crank stands', body },
  }),
  pending: (item) => ({ ...(item.body as Turning), roundId: item.within!, saidAt: item.takenAt }),
};
