import type { Knex } from 'knex';

/** As much of what was written is shown. */
const SAID = 60;

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
