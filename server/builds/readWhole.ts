import type { BuildHead, BuildParts } from '@zero-lash/contract/builds';
import { judgedAgain } from '@zero-lash/core/builds';
import { hollowAt, wearSheetOf } from '@zero-lash/core/wear';
import type { Knex } from 'knex';
import { effectiveSheet, type EffectiveSheet } from '../sheets/effectiveSheet.ts';
import { findRevision } from '../sheets/read.ts';
import { readHead } from './read.ts';
import { readRoom } from './registry.ts';

/** A build with everything that its status is worked out from. */
export interface WholeBuild
  extends BuildHead, Pick<BuildParts, 'rounds' | 'settings' | 'ticks' | 'ledger' | 'wear' | 'notes'> {
  /** with the limits that the build goes by */
  readonly sheet: EffectiveSheet;
}

/** Reads everything that a build's status is worked out from. */
export async function readWhole(db: Knex, id: string): Promise<WholeBuild> {
  const { rows: head } = await readHead(db, id);
  const sheet = effectiveSheet(await findRevision(db, head.revisionId), head);
  const wear = await readRoom(db, id, 'wear');
  const settings = await readRoom(db, id, 'settings');
  const hollow = hollowAt(wearSheetOf(wear, sheet.wearLimits), sheet.pattern);
  return {
    ...head,
    sheet,
    wear,
    ticks: await readRoom(db, id, 'ticks'),
    rounds: [
      ...judgedAgain(await readRoom(db, id, 'rounds'), sheet.pattern, {
        ...{ limits: sheet.limits, hollow, settings },
      }),
    ],
    settings,
    ledger: await readRoom(db, id, 'ledger'),
    notes: await readRoom(db, id, 'notes'),
  };
}
