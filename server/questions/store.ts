import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import type { WriteContext } from '../plugins/writeContext.ts';

/** How many are shown. */
const SHOWN = 12;

/** A question that waits on a device, as Today shows it. */
export interface TimeQuestion {
  readonly buildId: string | null;
  readonly engineId: string;
  readonly engine: string;
  readonly said: string;
  readonly by: string;
}

/** Every question that waits on a device, oldest first, with the engine it is of. */
export async function readTimeQuestions(db: Knex): Promise<TimeQuestion[]> {
  const { rows } = await db.raw(
    `select coalesce(b.id, r.build_id, c.build_id) as "buildId", e.id as "engineId", e.name as engine, q.said, p.name as by
       from time_questions q join people p on p.id = q.person_id
         left join rounds r on q.room = 'rounds' and r.id = q.subject
         left join rechecks c on q.room = 'rechecks' and c.id = q.subject
         left join builds b on b.id = case when q.room = 'builds' then q.subject else coalesce(r.build_id, c.build_id) end
         join engines e on e.id = case when q.room = 'engines' then q.subject else b.engine_id end
      order by q.asked_at limit ${SHOWN}`,
  );
  return rows as TimeQuestion[];
}

/** A device threw away what it was asked about. Whose device it was may say so, and a lead, where the device is gone. */
export async function leaveTimeQuestion(
  db: Knex,
  key: string,
  { personId, leads }: Pick<WriteContext, 'personId' | 'leads'>,
): Promise<void> {
  const question = await db('time_questions').where({ key }).forUpdate().first('person_id');
  // answered meanwhile: there is nothing left to leave
  if (!question) return;
  if (question.person_id !== personId && !leads) throw new Refusal('forbidden');
  await db('time_questions').where({ key }).delete();
}
