import type { PatternPartsRow } from '@zero-lash/contract/parts';
import type { Knex } from 'knex';
import { ofPattern, type OfPattern } from '../builds/ofPattern.ts';
import { byId, type RoomDefinition } from '../builds/registry.ts';
import { json } from '../storedJson.ts';

/** What was kept of a pattern's parts, oldest first: of the pattern of a build, or one by its name. */
export async function readPatternParts(db: Knex, which: OfPattern): Promise<PatternPartsRow[]> {
  const query = db('pattern_parts as k')
    .join('people as p', 'p.id', 'k.by')
    .orderBy(['k.at', 'k.id'])
    .select('k.id', 'k.sheet_id as sheetId', 'k.lines', 'p.name as by', 'k.at');
  ofPattern(db, query, which);
  return ((await query) as (Omit<PatternPartsRow, 'at'> & { at: Date })[]).map(({ at, lines, ...row }) => ({
    ...row,
    lines: json('pattern_parts.lines', lines),
    at: at.toISOString(),
  }));
}

/** What the shop knows of the parts of a build's pattern. */
export const patternParts: RoomDefinition<'pattern-parts'> = {
  read: (db, build) => readPatternParts(db, { build }),
  kinds: {
    'pattern-parts': { idOf: byId, again: async (db, _build, id) => (await readPatternParts(db, { id }))[0] },
  },
};
