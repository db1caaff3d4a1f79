import type { BuildHead, BuildRowChange, NoteRow, TickRow } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import { json } from '../storedJson.ts';
import { readLate } from './cameLate.ts';

/** Rows of a build with how many writes it had seen: no fewer than are in the rows. */
export interface AsOf<Rows> {
  readonly seq: number;
  readonly rows: Rows;
}

const noBuild = () => new Refusal('not_found', { detail: 'There is no such build.' });

/** How many writes a build has seen. */
export async function seqOf(db: Knex, id: string): Promise<number> {
  const build = await db('builds').where({ id }).first('seq');
  if (!build) throw noBuild();
  return build.seq;
}

/**
 * Reads a room of a build. Its `seq` is read first: what is written between the two is in the rows, and is told after.
 */
export async function asOf<Rows>(
  db: Knex,
  id: string,
  read: (db: Knex, id: string) => Promise<Rows>,
): Promise<AsOf<Rows>> {
  const seq = await seqOf(db, id);
  return { seq, rows: await read(db, id) };
}

/** A build itself: where it stands, on what, and whether it is signed off. */
export async function readHead(db: Knex, id: string): Promise<AsOf<BuildHead>> {
  const { rows } = await db.raw(
    `select b.id, b.number, b.job, b.stage, b.complaint, b.aim, b.proves_again as "provesAgain",
       b.locked_stands as "lockedStands", b.cold_hours as "coldHours",
       b.allow_over as "allowOver", b.single_rule as "singleRule", b.own_aims as "ownAims", wp.name as "aimBy", b.version, b.seq, b.opened_at as "openedAt",
       p.name as "openedBy", b.closed_at as "closedAt", b.revision_id as "revisionId",
       e.id as "engineId", e.name as engine, e.usage_unit as "usageUnit", e.usage, e.running, e.heat_cycles as "heatCycles",
       sp.name as "signedBy", s.at as "signedAt", s.usage as "signedUsage", s.statement, s.accepted,
       b.last_checked_on as "checkedOn", b.last_checked_usage as "checkedUsage", b.last_checked_by as "checkedBy",
       b.set_cold as "setCold", cp.name as "coldBy",
       b.abandoned_at as "abandonedAt", ap.name as "abandonedBy", b.abandoned_why as "abandonedWhy",
       (select json_build_object('buildId', cb.id, 'number', cb.number, 'sequence', c.number)
         from rounds c join builds cb on cb.id = c.build_id where c.id = b.carried_round) as carried
     from builds b
       join people p on p.id = b.opened_by
       join engines e on e.id = b.engine_id
       left join people wp on wp.id = b.aim_by
       left join people cp on cp.id = b.set_cold_by
       left join people ap on ap.id = b.abandoned_by
       left join sign_offs s on s.build_id = b.id
       left join people sp on sp.id = s.by
     where b.id = ?`,
    [id],
  );
  if (!rows[0]) throw noBuild();
  const ownAims = json('builds.own_aims', rows[0].ownAims);
  const setCold = json('builds.set_cold', rows[0].setCold);
  const late = rows[0].signedAt ? await readLate(db, id) : [];
  const {
    seq,
    engineId,
    engine,
    usageUnit,
    usage,
    running,
    heatCycles,
    signedBy,
    signedAt,
    signedUsage,
    statement,
    accepted,
    abandonedAt,
    abandonedBy,
    abandonedWhy,
    checkedOn,
    checkedUsage,
    checkedBy,
    aimBy,
    coldBy,
    ...head
  } = rows[0];
  return {
    seq,
    rows: {
      ...head,
      late,
      allowOver: json('builds.allow_over', head.allowOver),
      singleRule: json('builds.single_rule', head.singleRule),
      ownAims: ownAims && { ...ownAims, by: aimBy },
      setCold: setCold && { ...setCold, by: coldBy },
      openedAt: head.openedAt.toISOString(),
      closedAt: head.closedAt?.toISOString() ?? null,
      engine: { id: engineId, name: engine, usageUnit, usage, running, heatCycles },
      abandoned: abandonedAt && { at: abandonedAt.toISOString(), by: abandonedBy, why: abandonedWhy },
      lastChecked: checkedOn && { on: checkedOn, usage: checkedUsage, by: checkedBy },
      signOff: signedAt
        ? {
            ...{ by: signedBy, at: signedAt.toISOString(), usage: signedUsage, statement, accepted },
          }
        : null,
    },
  };
}

/** The build itself as a change that a write brought. */
export async function headChange(db: Knex, id: string): Promise<BuildRowChange> {
  return { kind: 'head', row: (await readHead(db, id)).rows };
}

/** Every check of a build that was ever ticked, as it was last. */
export async function readTicks(db: Knex, buildId: string): Promise<TickRow[]> {
  const rows = (await db('stage_ticks as t')
    .join('people as p', 'p.id', 't.by')
    .where('t.build_id', buildId)
    .select('t.stage', 't.check_key as check', 't.done', 'p.name as by', 't.at', 't.earlier', {
      // of what was ticked before it was kept nobody knows
      earlierBy: db.raw(
        'array(select w.name from unnest(t.earlier_by) with ordinality as u (id, nth) left join people w on w.id = u.id order by nth)',
      ),
    })) as (Omit<TickRow, 'at' | 'earlier'> & { at: Date; earlier: Date[] })[];
  return rows.map(({ at, earlier, ...row }) => ({
    ...row,
    at: at.toISOString(),
    earlier: earlier.map((each) => each.toISOString()),
  }));
}

/** What was written down in a build, oldest first; one note where it is named. */
export async function readNotes(db: Knex, buildId: string, id?: string): Promise<NoteRow[]> {
  // moments are written as they cross the wire: a Date read as a text loses its milliseconds
  const query = db('stage_notes as n')
    .join('people as p', 'p.id', 'n.by')
    .where('n.build_id', buildId)
    .orderBy(['n.at', 'n.id'])
    .select('n.id', 'n.stage', 'n.text', 'p.name as by', 'n.at');
  if (id !== undefined) query.where('n.id', id);
  const rows = (await query) as (Omit<NoteRow, 'at'> & { at: Date })[];
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}
