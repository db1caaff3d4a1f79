import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import type { Knex } from 'knex';

const FIELDS = [
  'k.id',
  'k.sheet_id as sheetId',
  'k.stage',
  'k.text',
  'k.about',
  'k.crank_angle as crankAngle',
  'p.name as by',
  'k.at',
  'k.dropped',
  'k.version',
];

/** What the shop has learned of a pattern, oldest first: of the pattern of a build, or one note by its name. */
export async function readKnowHow(
  db: Knex,
  which: { readonly build: string } | { readonly id: string },
): Promise<KnowHowRow[]> {
  const query = db('know_how as k')
    .join('people as p', 'p.id', 'k.by')
    .orderBy(['k.at', 'k.id'])
    .select(FIELDS);
  if ('id' in which) query.where('k.id', which.id);
  else
    query.where(
      'k.sheet_id',
      db('builds as b')
        .join('sheet_revisions as r', 'r.id', 'b.revision_id')
        .where('b.id', which.build)
        .select('r.sheet_id'),
    );
  return (
    (await query) as (Omit<KnowHowRow, 'at' | 'crankAngle'> & { at: Date; crankAngle: string | null })[]
  ).map(({ at, crankAngle, ...row }) => ({
    ...row,
    crankAngle: crankAngle === null ? null : Number(crankAngle),
    at: at.toISOString(),
  }));
}
