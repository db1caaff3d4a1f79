import type { PhotographRow } from '@zero-lash/contract/photographs';
import type { Knex } from 'knex';

/** The photographs of a build without their pictures, oldest first; one where it is named. */
export async function readPhotographs(db: Knex, buildId: string, id?: string): Promise<PhotographRow[]> {
  const query = db('photographs as f')
    .join('people as p', 'p.id', 'f.by')
    .where('f.build_id', buildId)
    .orderBy(['f.at', 'f.id'])
    .select(
      'f.id',
      'f.stage',
      'f.about',
      'f.note',
      'f.shows',
      'f.width',
      'f.height',
      'p.name as by',
      'f.at',
      {
        dropped: db.raw('f.dropped_at is not null'),
      },
    );
  if (id !== undefined) query.where('f.id', id);
  return ((await query) as (Omit<PhotographRow, 'at'> & { at: Date })[]).map(({ at, ...row }) => ({
    ...row,
    at: at.toISOString(),
  }));
}

/** The picture of a photograph; undefined where there is none. */
export async function readPicture(db: Knex, id: string): Promise<Buffer | undefined> {
  const row = await db('photographs').where({ id }).first('picture');
  return row?.picture;
}
