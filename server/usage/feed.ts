import { ownPlace, type Place } from '@zero-lash/contract/places';
import { type UsageUnit } from '@zero-lash/contract/values';
import { feedLine, type FeedTaken, type meterAnswer, type MeterQuestion } from '@zero-lash/contract/usage';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { runningWarning } from '@zero-lash/core/rechecks';
import { announceChange } from '../plugins/bus.ts';
import { AHEAD_MS, clock, dayIn, isAhead, shopZone } from '../clock.ts';
import { databaseRefusalCode } from '../plugins/databaseErrors.ts';
import { Refusal } from '../plugins/errors.ts';
import { logFigure } from './store.ts';

/** How long a feed may take to answer, and how much it may send at once. */
const WITHIN_MS = 5000;
const MOST_BYTES = 8_000_000;
/** As much of a line that is none as is kept. */
const MOST_LINE = 500;
/** What the database says that is no matter of a line. */
const WAITING_MENDS = new Set<string>(['database_away', 'cannot_write', 'busy']);
/** A meter that was not heard of for so long is not waited for. */
const SILENT_MS = 60 * 86_400_000;

/** How often a running server looks at the feed. */
export const FEED_EVERY_MS = 600_000;

/**
 * Looks at the shop's meter feed: a JSON object a line, each with the serial of an engine, the moment it was read, and what the
 * meter showed. What fits is taken once, however often it is sent; what runs backwards, is from the future, more than can have been
 * run, in another unit, of no engine here, or no line at all, is asked about, and keeps no other back.
 *
 * @param withinMs how long the feed may take in all
 * @throws Refusal `feed_away` where it does not answer
 */
export async function takeFeed(db: Knex, withinMs = WITHIN_MS): Promise<FeedTaken> {
  const shop = await db('shop').first('meter_feed');
  if (!shop?.meter_feed) return { taken: 0, asked: 0, seen: 0 };
  const lines = await readFeed(shop.meter_feed, await askedSince(db), withinMs);
  const by = (await db('people').where({ active: true, role: 'lead' }).orderBy('created_at').first('id'))!;
  const counts = { taken: 0, asked: 0, seen: lines.length };
  for (const line of lines) {
    const state = await db.transaction(async (own) => {
      const came = await ('none' in line ? askAbout(own, line) : takeLine(own, line, by.id));
      if (came) await announceChange(own, ['usage']);
      return came;
    });
    if (state) counts[state] += 1;
  }
  return counts;
}

/**
 * Since when the feed is asked: each meter by its own last line, and the one that was heard of longest ago says for all. One that
 * was silent for long holds nobody up, and what is said to be from the future says nothing.
 */
async function askedSince(db: Knex): Promise<Date | null> {
  const now = clock.now().getTime();
  const { rows } = await db.raw(
    `select min(last) as since from (
       select max(at) as last from meter_lines where usage is not null and at <= ? group by lower(serial)) meters
     where last > ?`,
    [new Date(now + AHEAD_MS), new Date(now - SILENT_MS)],
  );
  return rows[0].since as Date | null;
}

type Line = z.output<typeof feedLine>;
/** A line that is none, as it came, and why. */
interface NoLine {
  readonly none: string;
  readonly why: string;
}

/** Keeps a line that is none, to be asked about: once, however often it is sent. */
async function askAbout(db: Knex.Transaction, { none, why }: NoLine): Promise<'asked' | null> {
  const kept = await db('meter_lines')
    .insert({ serial: '', at: db.raw('clock_timestamp()'), usage: null, line: none, why, state: 'asked' })
    .onConflict(db.raw("(md5(line)) where line <> ''"))
    .ignore()
    .returning('id');
  return kept.length > 0 ? 'asked' : null;
}

async function takeLine(db: Knex.Transaction, line: Line, by: string): Promise<'taken' | 'asked' | null> {
  const at = new Date(line.at);
  const [engine, other] = (await db('engines')
    .whereRaw('lower(serial) = lower(?)', [line.serial])
    .whereNull('put_away_at')
    .orderBy('created_at')
    .limit(2)
    .select('id', 'usage', 'usage_at', 'usage_unit')) as Metered[];
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
  const odd = await oddIn(db, line, engine);
  if (odd !== null) {
    await db('meter_lines').where({ id: row.id }).update({ why: odd });
    return 'asked';
  }
  try {
    await db.transaction((own) =>
      logFigure(
        own,
        {
          ...{ engineId: engine.id, usage: line.usage, heatCycles: line.heatCycles },
          ...{ reason: '', newMeter: null, sure: false, at, source: 'feed' },
        },
        by,
      ),
    );
    await db('meter_lines').where({ id: row.id }).update({ state: 'taken' });
    return 'taken';
  } catch (error) {
    // whatever a line meets is that line's own matter, unless there is no database to write it to
    if (WAITING_MENDS.has(databaseRefusalCode(error as object) ?? '')) throw error;
    const why = error instanceof Refusal ? error.message : 'It cannot be written down as it stands.';
    await db('meter_lines').where({ id: row.id }).update({ why });
    return 'asked';
  }
}

interface Metered {
  readonly id: string;
  readonly usage: number;
  readonly usage_at: Date;
  readonly usage_unit: UsageUnit;
}

/** What a person would be asked who typed the same; null where nothing is odd about it. */
async function oddIn(db: Knex, { at, usage, unit }: Line, engine: Metered): Promise<string | null> {
  const day = at.slice(0, 10);
  if (isAhead(new Date(at)))
    return `It is said to be of ${day}, which has not come yet: the clock of the meter is wrong.`;
  if (unit !== null && unit !== engine.usage_unit)
    return `It is in ${unit}, and the engine is counted in ${engine.usage_unit}.`;
  if (new Date(at) < engine.usage_at || isAhead(engine.usage_at)) return null;
  const zone = await shopZone(db);
  const last = { usage: engine.usage, on: dayIn(zone, engine.usage_at) };
  return runningWarning(usage, last, dayIn(zone, new Date(at)), engine.usage_unit)
    ? `It is more than can have been run since ${engine.usage} was logged.`
    : null;
}

async function readFeed(address: string, since: Date | null, withinMs: number): Promise<(Line | NoLine)[]> {
  const place = ownPlace(address);
  if (!place)
    throw new Refusal('feed_away', {
      detail: `The meter feed is at ${address}, which is neither on this machine nor an address of the shop's own network: see Shop.`,
    });
  try {
    return linesIn(await textAt(place, since, withinMs));
  } catch (error) {
    throw new Refusal('feed_away', {
      detail: `The meter feed at ${address} cannot be read: ${(error as Error).message}.`,
    });
  }
}

/**
 * What a feed says, in time and no longer than may be: it is cut off as it comes, so that nobody fills the memory of a server. It is
 * read where it was told to be, and nowhere that it points to.
 */
async function textAt({ host, port }: Place, since: Date | null, withinMs: number): Promise<string> {
  const query = since ? `?since=${encodeURIComponent(since.toISOString())}` : '';
  const answer = await fetch(`http://${host}:${port}/readings${query}`, {
    ...{ signal: AbortSignal.timeout(withinMs), redirect: 'manual' },
  });
  if (!answer.ok) throw new Error(`it answers ${answer.status}`);
  const decoder = new TextDecoder();
  let [text, bytes] = ['', 0];
  for await (const chunk of answer.body ?? []) {
    bytes += (chunk as Uint8Array).length;
    if (bytes > MOST_BYTES) throw new Error(`it sends more than ${MOST_BYTES / 1_000_000} MB at once`);
    text += decoder.decode(chunk as Uint8Array, { stream: true });
  }
  return text + decoder.decode();
}

function linesIn(text: string): (Line | NoLine)[] {
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const read = feedLine.safeParse(parsed(line));
      if (read.success) return read.data;
      const why = [...read.error.issues[0]!.path, read.error.issues[0]!.message].join(' ');
      return { none: plain(line).slice(0, MOST_LINE), why: `It cannot be read: ${why}.` };
    });
}

/** A line as it may be kept and shown. */
const plain = (line: string) => line.replace(/[\p{Cc}\p{Cs}]/gu, '\uFFFD');

function parsed(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return null;
  }
}

/** What the feed sent that cannot be as it stands, oldest first. */
export async function readQuestions(db: Knex): Promise<{ feed: boolean; questions: MeterQuestion[] }> {
  const shop = (await db('shop').first('meter_feed'))!;
  const rows = (await db('meter_lines as m')
    .leftJoin('engines as e', 'e.id', 'm.engine_id')
    .where('m.state', 'asked')
    .orderBy('m.at')
    .limit(200)
    .select({
      ...{ id: 'm.id', serial: 'm.serial', at: 'm.at', usage: 'm.usage', heatCycles: 'm.heat_cycles' },
      line: 'm.line',
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
    if (line.usage === null)
      throw new Refusal('feed_answered', {
        detail: 'That line says nothing that could be taken: leave it out.',
      });
    if (!line.engine_id)
      throw new Refusal('feed_answered', {
        detail: 'Which engine it is of is not clear: give one engine this serial first, or leave the line.',
      });
    const { usage: last } = (await db('engines').where({ id: line.engine_id }).first('usage'))!;
    await logFigure(
      db,
      {
        ...{ engineId: line.engine_id, usage: line.usage, heatCycles: line.heat_cycles },
        // one of a clock that is wrong is of now, as far as anybody knows
        at: isAhead(line.at) ? clock.now() : line.at,
        source: 'feed',
        sure: is === 'right',
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
