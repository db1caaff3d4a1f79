import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import type { Knex } from 'knex';
import { ofPattern, type OfPattern } from '../builds/ofPattern.ts';

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
export async function readKnowHow(db: Knex, which: OfPattern): Promise<KnowHowRow[]> {
  const query = db('know_how as k')
    .join('people as p', 'p.id', 'k.by')
    .orderBy(['k.at', 'k.id'])
    .select(FIELDS);
  ofPattern(db, query, which);
  return (
    (await query) as (Omit<KnowHowRow, 'at' | 'crankAngle'> & { at: Date; crankAngle: string | null })[]
  ).map(({ at, crankAngle, ...row }) => ({
    ...row,
    crankAngle: crankAngle === null ? null : Number(crankAngle),
    at: at.toISOString(),
  }));
}
