import { type RoundKind } from '@zero-lash/core/builds';
import type { Knex } from 'knex';

/** Begins a round of a build; gives its id. */
export async function openRound(
  db: Knex,
  {
    id,
    sheet,
    running,
  }: { readonly id: string; readonly sheet: { readonly id: string }; readonly running: number },
  round: { readonly kind: RoundKind; readonly number: number },
  personId: string,
): Promise<string> {
  const [opened] = await db('rounds')
    .insert({
      build_id: id,
      revision_id: sheet.id,
      ...round,
      opened_by: personId,
      usage: running,
    })
    .returning('id');
  return opened!.id;
}
