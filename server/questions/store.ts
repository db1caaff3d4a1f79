import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';

/** What is shown of what was written. */
const SAID = 60;
const SHOWN = 12;

/** A write that a device has to be asked about: who sent it, to which route, and what it says. */
interface Asked {
  readonly key: string;
  readonly personId: string;
  /** the route as it is declared, such as `/api/rounds/:id/readings` */
  readonly route: string;
  readonly subject: string;
  readonly body: unknown;
}

/** Keeps that a device was asked when something was done; once for each write, until it is written or thrown away there. */
export async function keepTimeQuestion(
  db: Knex,
  { key, personId, route, subject, body }: Asked,
): Promise<void> {
  const room = route.split('/')[2] ?? '';
  await db('time_questions')
    .insert({ key, person_id: personId, room, subject, said: saidIn(body) })
    .onConflict('key')
    .ignore();
}

/** What a person would know it by: where it was, and what was typed there. */
function saidIn(body: unknown): string {
  const { point, asTyped, usage, text } = body as Record<string, unknown>;
  return [point, asTyped ?? usage ?? text]
    .filter((each) => typeof each === 'string' || typeof each === 'number')
    .join(': ')
    .slice(0, SAID);
}

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
  person: { readonly id: string; readonly role: string },
): Promise<void> {
  const question = await db('time_questions').where({ key }).forUpdate().first('person_id');
  // answered meanwhile: there is nothing left to leave
  if (!question) return;
  if (question.person_id !== person.id && person.role !== 'lead') throw new Refusal('forbidden');
  await db('time_questions').where({ key }).delete();
}
