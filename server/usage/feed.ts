import { feedLine, type FeedTaken, type meterAnswer, type MeterQuestion } from '@zero-lash/contract/usage';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { logFigure } from './store.ts';

/** How long a feed may take to answer, and how much it may send at once. */
const WITHIN_MS = 5000;
const MOST_BYTES = 1_000_000;

/** How often a running server looks at the feed. */
export const FEED_EVERY_MS = 600_000;

/**
 * Looks at the shop's meter feed: a JSON object a line, each with the serial of an engine, the moment it was read, and what the
 * meter showed. What fits is taken once, however often it is sent; what runs backwards, or is of no engine here, is asked about.
 *
 * @throws Refusal `feed_away` where it does not answer, or answers what is no feed
 */
export async function takeFeed(db: Knex): Promise<FeedTaken> {
  const shop = await db('shop').first('meter_feed');
  if (!shop?.meter_feed) return { taken: 0, asked: 0, seen: 0 };
  const since = await db('meter_lines').max('at as at').first();
  const lines = await readFeed(shop.meter_feed, since?.at ?? null);
  const by = await db('people').where({ active: true, role: 'lead' }).orderBy('created_at').first('id');
  const counts = { taken: 0, asked: 0, seen: lines.length };
  for (const line of lines) {
    const state = await db.transaction((own) => takeLine(own, line, by.id));
    if (state) counts[state] += 1;
  }
  return counts;
}

type Line = z.output<typeof feedLine>;

async function takeLine(db: Knex.Transaction, line: Line, by: string): Promise<'taken' | 'asked' | null> {
  const at = new Date(line.at);
  const [engine, other] = await db('engines')
    .whereRaw('lower(serial) = lower(?)', [line.serial])
    .whereNull('put_away_at')
    .orderBy('created_at')
    .limit(2)
    .select('id');
  const one = engine && !other;
  const [row] = await db('meter_lines')
    .insert({
      ...{ serial: line.serial, at, usage: line.usage, heat_cycles: line.heatCycles, state: 'asked' },
      ...{ engine_id: one ? engine.id : null },
      why: one
        ? ''
        : other
          ? 'More than one engine here has this serial.'
          : 'No engine here has this serial.',
    })
    // two servers look at one feed: a line is taken by one of them
    .onConflict(['serial', 'at'])
    .ignore()
    .returning('id');
  if (!row) return null;
  if (!one) return 'asked';
  try {
    await db.transaction((own) =>
      logFigure(
        own,
        {
          ...{ engineId: engine.id, usage: line.usage, heatCycles: line.heatCycles },
          ...{ reason: '', newMeter: null, at, source: 'feed' },
        },
        by,
      ),
    );
    await db('meter_lines').where({ id: row.id }).update({ state: 'taken' });
    return 'taken';
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    await db('meter_lines').where({ id: row.id }).update({ why: error.message });
    return 'asked';
  }
}

async function readFeed(address: string, since: Date | null): Promise<Line[]> {
  let text: string;
  try {
    const query = since ? `?since=${encodeURIComponent(since.toISOString())}` : '';
    const answer = await fetch(`http://${address}/readings${query}`, {
      signal: AbortSignal.timeout(WITHIN_MS),
    });
    if (!answer.ok) throw new Error(`it answers ${answer.status}`);
    text = await answer.text();
  } catch (error) {
    throw new Refusal('feed_away', {
      detail: `The meter feed at ${address} cannot be read: ${(error as Error).message}.`,
    });
  }
  if (text.length > MOST_BYTES)
    throw new Refusal('feed_away', { detail: 'The meter feed sends more than it can at once.' });
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line, index) => {
      const read = feedLine.safeParse(parsed(line));
      if (!read.success)
        throw new Refusal('feed_away', {
          detail: `Line ${index + 1} of the meter feed is none: ${[...read.error.issues[0]!.path, read.error.issues[0]!.message].join(' ')}. Nothing of it was taken.`,
        });
      return read.data;
    });
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return null;
  }
}

/** What the feed sent that cannot be as it stands, oldest first. */
export async function readQuestions(db: Knex): Promise<{ feed: boolean; questions: MeterQuestion[] }> {
  const shop = await db('shop').first('meter_feed');
  const rows = (await db('meter_lines as m')
    .leftJoin('engines as e', 'e.id', 'm.engine_id')
    .where('m.state', 'asked')
    .orderBy('m.at')
    .limit(200)
    .select({
      ...{ id: 'm.id', serial: 'm.serial', at: 'm.at', usage: 'm.usage', heatCycles: 'm.heat_cycles' },
      ...{ engineId: 'e.id', engine: 'e.name', usageUnit: 'e.usage_unit', last: 'e.usage', why: 'm.why' },
    })) as (Omit<MeterQuestion, 'at'> & { at: Date })[];
  return {
    feed: shop.meter_feed !== '',
    questions: rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() })),
  };
}

/** Says what a line of the feed is: the first figure of a new meter, right as it stands for a reason, or nothing to go by. */
export async function answerQuestion(
  db: Knex,
  id: string,
  { is, lastOfOld, reason }: z.output<typeof meterAnswer>,
  personId: string,
): Promise<void> {
  const line = await db('meter_lines').where({ id }).forUpdate().first();
  if (!line) throw new Refusal('not_found', { detail: 'There is no such line.' });
  if (line.state !== 'asked') throw new Refusal('feed_answered');
  if (is !== 'left') {
    if (!line.engine_id)
      throw new Refusal('feed_answered', {
        detail: 'Which engine it is of is not clear: give one engine this serial first, or leave the line.',
      });
    const { usage: last } = await db('engines').where({ id: line.engine_id }).first('usage');
    await logFigure(
      db,
      {
        ...{ engineId: line.engine_id, usage: line.usage, heatCycles: line.heat_cycles, at: line.at },
        source: 'feed',
        reason: is === 'right' ? reason || 'asked about, and right' : reason,
        newMeter: is === 'new-meter' ? { lastOfOld: lastOfOld ?? last, startedAt: 0 } : null,
      },
      personId,
    );
  }
  await db('meter_lines')
    .where({ id })
    .update({ state: is === 'left' ? 'left' : 'taken', answered_by: personId });
}
