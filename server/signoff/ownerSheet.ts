import {
  comesInWords,
  dayInWords,
  nextCheckInWords,
  recheckDayInLetter,
  runningInWords,
} from '@zero-lash/core/rechecks';
import { addedTo, lastDone, statusOf, buildInWords } from '@zero-lash/core/builds';
import { formatInterval, formatLength, tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import { gapInTenths, type KnownGap, type Verdict } from '@zero-lash/core/measuring';
import { ledgerKey, partsListOf, partsListRow } from '@zero-lash/core/parts';
import { settingInWords } from '@zero-lash/core/setting';
import { bandInWords, bothNames, layOutHeads, ROLE_WORDS, type HeadMap } from '@zero-lash/core/sheets';
import { proofLines, type ProofLine } from '@zero-lash/core/signoff';
import { partDispositions, PARTS, wearSheetOf } from '@zero-lash/core/wear';
import { currentLines } from '@zero-lash/core/builds';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { readNotes } from '../builds/read.ts';
import { readWhole, type WholeBuild } from '../builds/readWhole.ts';
import { dayIn, shopZone } from '../clock.ts';
import { departsInWords } from '../parts/store.ts';
import { readRechecks } from '../rechecks/read.ts';
import { findRevision } from '../sheets/read.ts';

/** What is known of one point's gap; mm, and in words of the shop's unit. */
interface Gap {
  readonly lo: number;
  readonly hi: number | null;
  readonly said: string;
  readonly verdict: Verdict;
}

/** One point as it stands on the owner's sheet. */
export interface OwnerPoint {
  readonly key: string;
  /** as it is read: the maker's name with ours beside, where it has one */
  readonly name: string;
  readonly role: string;
  readonly min: number;
  readonly max: number;
  readonly limits: string;
  readonly found: Gap | null;
  readonly done: string;
  readonly proved: Gap | null;
  /** nobody touched it, and what it was found at proves it */
  readonly leftAsFound: boolean;
  /** in spec only by what the shop takes over the greatest */
  readonly onLimit: boolean;
  readonly letStand: boolean;
}

/** What an owner is given: what was found, worn, replaced, set and proved, and when to come again. */
export interface OwnerSheetPaper {
  readonly engine: string;
  /** owner, serial, duty, running figure */
  readonly about: readonly string[];
  readonly build: string;
  readonly complaint: string;
  readonly sheet: string;
  readonly signed: string;
  readonly statement: string;
  /** what a lead added after it was signed, each with its day and name */
  readonly added: readonly string[];
  readonly cautions: readonly string[];
  readonly head: HeadMap;
  readonly points: readonly OwnerPoint[];
  readonly unit: ShopUnit;
  /** part, place, what becomes of it, why */
  readonly worn: readonly (readonly string[])[];
  readonly replaced: readonly (readonly string[])[];
  readonly next: string;
}

/** Collects everything that stands on an owner's sheet. */
export async function readOwnerSheet(db: Knex, buildId: string): Promise<OwnerSheetPaper> {
  const build = await readWhole(db, buildId);
  const { sheet, engine, signOff } = build;
  const shop = (await db('shop').first('name', 'unit'))!;
  const unit = shop.unit as ShopUnit;
  const zone = await shopZone(db);
  const on = (moment: string) => dayInWords(dayIn(zone, new Date(moment)));
  const owned = (await db('engines').where({ id: engine.id }).first('owner', 'serial', 'duty'))!;
  const wear = wearSheetOf(await readEntries(db, buildId, 'wear'), sheet.wearLimits);
  const fates = partDispositions(wear, sheet.pattern);
  const [planned] = (await readRechecks(db, { build_id: buildId })).filter(
    ({ status }) => status === 'planned',
  );
  const departs = departsInWords((await findRevision(db, build.revisionId)).limits, build);
  return {
    engine: engine.name,
    about: [
      owned.owner,
      owned.serial && `serial ${owned.serial}`,
      owned.duty,
      runningInWords(signOff?.usage ?? engine.usage, engine.usageUnit),
    ].filter(Boolean),
    build: `Build ${build.number}, opened ${on(build.openedAt)} · ${shop.name}`,
    complaint: buildInWords(build),
    sheet: `${sheet.maker} ${sheet.name}, revision ${sheet.number}; ${sheet.source.manual}${sheet.source.page && `, page ${sheet.source.page}`}`,
    signed: signOff
      ? `Signed off by ${signOff.by} on ${on(signOff.at)}.`
      : 'Not signed off yet: this is how it stands so far.',
    statement: signOff?.statement ?? '',
    added: signOff
      ? [
          ...addedTo(signOff, await readNotes(db, buildId)).map(
            ({ text, by, at }) => `Added ${on(at)} by ${by}: ${text}`,
          ),
          ...build.late.flatMap(({ what, point, said, by, cameAt }) =>
            what === 'reading'
              ? [`Came in ${on(cameAt)}, measured before it was signed by ${by}: ${point} ${said}`]
              : [],
          ),
        ]
      : [],
    cautions: [
      ...(planned?.late
        ? [
            'Do not run it on: what was measured before it was signed off, and reached us after, says otherwise. It is to be set again.',
          ]
        : []),
      ...(departs === '' ? [] : [departs]),
      ...(signOff && signOff.accepted.length > 0
        ? [`Left as they were, by a lead: ${signOff.accepted.join(', ')}. Look at them sooner.`]
        : []),
      'First hours: stop at any knock, and look for leaks. The maker’s manual governs.',
      'Where this engine is under certification, those licensed to sign for it do so under local rules. This record does not replace that.',
    ],
    head: layOutHeads(sheet.pattern),
    points: pointsOf(build, unit),
    unit,
    worn: fates
      .filter(({ verdict }) => verdict === 'replace' || verdict === 'watch')
      .map(({ part, place, verdict, reasons }) => [
        ...[part === 'seal' ? place : PARTS[part].title, part === 'seal' ? '' : place],
        ...[verdict!, reasons.join('; ')],
      ]),
    replaced: partsListOf(sheet, fates, currentLines(build.ledger, ledgerKey))
      .filter(({ state }) => state === 'fitted')
      .map(partsListRow),
    next: planned
      ? [
          `Next check: ${nextCheckInWords(planned, engine) ?? 'as the shop says'}.`,
          recheckDayInLetter({ ...engine, ...planned }, dayIn(zone)),
          comesInWords(sheet.condition),
        ]
          .filter(Boolean)
          .join(' ')
      : 'The next check is planned when it is signed off.',
  };
}

function pointsOf(build: WholeBuild, unit: ShopUnit): OwnerPoint[] {
  const { accepted } = statusOf(build);
  const said = (known: KnownGap) => formatInterval(gapInTenths(known), unit);
  const gap = (reading: ProofLine<ReadingRow>['proved']): Gap | null =>
    reading && { lo: reading.lo, hi: reading.hi, verdict: reading.verdict, said: said(reading) };
  const doneAt = (key: string) => {
    const done = lastDone(build.settings, key);
    return done ? settingInWords(done, (mm) => formatLength(tenthsFromMm(mm), unit)) : '';
  };
  return proofLines(build).map(({ point, found, proved, leftAsFound }) => ({
    name: bothNames(build.sheet.pattern, point.key),
    ...{ key: point.key, role: ROLE_WORDS[point.role], min: point.min, max: point.max },
    limits: bandInWords(
      point,
      (min, max) => said({ lo: min, hi: max }),
      (mm) => formatLength(tenthsFromMm(mm), unit),
    ),
    found: gap(found),
    done: doneAt(point.key),
    proved: gap(proved),
    onLimit: proved?.onLimit ?? false,
    leftAsFound,
    letStand: accepted.has(point.key),
  }));
}
