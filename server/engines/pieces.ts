import type { PieceThere } from '@zero-lash/contract/engines';
import type { WearLineBody } from '@zero-lash/contract/wear';
import { mmFromTenths } from '@zero-lash/core/length';
import { lashPoints, pieceUnit } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';

/**
 * The graded piece at each point of an engine, as it was last fitted or found, in whichever build that was: what was done or
 * measured last stands. A point that nothing was ever said of has none.
 */
export async function readPieces(db: Knex, engineId: string): Promise<PieceThere[]> {
  if (!(await db('engines').where({ id: engineId }).first('id')))
    throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const builds = (await db('builds')
    .where({ engine_id: engineId, abandoned_at: null })
    .orderBy('number')
    .select('id', 'number', 'revision_id')) as { id: string; number: number; revision_id: string }[];
  const there = new Map<string, PieceThere>();
  const lay = (piece: PieceThere) => {
    const before = there.get(piece.point);
    if (!before || Date.parse(before.at) <= Date.parse(piece.at)) there.set(piece.point, piece);
  };
  for (const { id: buildId, number, revision_id: revisionId } of builds) {
    const { pattern } = await findRevision(db, revisionId);
    const stamped = new Map(lashPoints(pattern).map(({ key, role }) => [key, pieceUnit(pattern, role)]));
    for (const { at, by, lines } of await readEntries(db, buildId, 'wear'))
      for (const line of lines as WearLineBody[])
        if (line.kind === 'figure' && line.item === 'piece-in' && line.set === 'found')
          lay({
            ...{ point: line.place, thickness: line.values[0] ?? null, mark: '', how: 'found' },
            ...{ by, at, buildId, build: number, stamped: stamped.get(line.place) ?? 'mm' },
          });
    const set = (await db('settings as s')
      .join('people as p', 'p.id', 's.by')
      .where({ 's.build_id': buildId, 's.superseded': false })
      .whereIn('s.kind', ['fitted', 'bare'])
      .select('s.point', 's.fitted', 's.mark', 's.kind', 's.at', { by: 'p.name' })) as {
      point: string;
      fitted: number | null;
      mark: string;
      kind: 'fitted' | 'bare';
      at: Date;
      by: string;
    }[];
    for (const { point, fitted, mark, kind, at, by } of set)
      lay({
        ...{ point, thickness: fitted === null ? null : mmFromTenths(fitted), mark, how: kind },
        ...{ by, at: at.toISOString(), buildId, build: number, stamped: stamped.get(point) ?? 'mm' },
      });
  }
  return [...there.values()].sort((a, b) => (a.point < b.point ? -1 : 1));
}
