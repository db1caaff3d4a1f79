import type { BuildWrite, setColdRequest } from '@zero-lash/contract/builds';
import { coldFrom } from '@zero-lash/core/builds';
import { printedCold, provisionalComplaint, type ColdFigure, type SetCold } from '@zero-lash/core/setting';
import { resolveLimits, ROLE_WORDS } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { headChange } from '../builds/read.ts';
import { readWhole, type WholeBuild } from '../builds/readWhole.ts';
import { written } from '../builds/lock.ts';
import { Refusal } from '../plugins/errors.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { findRevision } from '../sheets/read.ts';
import { lockAtVersion } from './change.ts';

/**
 * Has an engine that is measured hot, and cannot be run, set cold in this build: to what its maker prints of the cold engine, and where he
 * prints nothing to a provisional gap that a lead stands for; or takes that back.
 *
 * Rule: what was found hot before stays judged by the hot figures; nothing that was set or proved changes what it is judged by.
 *
 * @throws Refusal `already_signed_off`, `measured_by_it`; `forbidden` where no lead gives a provisional gap; `invalid`
 */
export async function setColdInstead(
  db: Knex,
  id: string,
  { version, setCold }: z.output<typeof setColdRequest>,
  { personId, leads }: Pick<WriteContext, 'personId' | 'leads'>,
): Promise<BuildWrite> {
  const locked = await lockAtVersion(db, id, version);
  const build = await readWhole(db, id);
  if (build.signOff) throw new Refusal('already_signed_off');
  const from = coldFrom(build);
  if (from === null) throw new Refusal('measured_by_it');
  const said = setCold && {
    ...{
      figures: await figuresOf(db, build, setCold.figures, leads),
      foundHot: from === 'set',
      why: setCold.why,
    },
  };
  await db('builds')
    .where({ id })
    .update({
      ...{ set_cold: said && JSON.stringify(said), set_cold_by: said && personId, version: version + 1 },
    });
  return written(locked, await headChange(db, id));
}

/** What each role is set to: what the sheet prints, or what a lead gives where it prints nothing. */
async function figuresOf(
  db: Knex,
  build: WholeBuild,
  given: NonNullable<z.output<typeof setColdRequest>['setCold']>['figures'],
  leads: boolean,
): Promise<SetCold['figures']> {
  const sheet = await findRevision(db, build.revisionId);
  if (sheet.condition !== 'hot' || sheet.limits.length === 0)
    throw new Refusal('invalid', { detail: 'This engine is not measured hot: it is set as its sheet says.' });
  if (build.aim === 'own')
    throw new Refusal('invalid', {
      detail:
        'It is aimed at figures of the shop’s own, which are for the hot engine: aim within the band first.',
    });
  const printed = printedCold(sheet.limits, build.singleRule);
  const wanted = resolveLimits(sheet.limits, build.singleRule).filter(({ role }) =>
    printed.every((each) => each.role !== role),
  );
  if (wanted.length > 0 && !leads)
    throw new Refusal('forbidden', {
      detail: `Only a lead gives a provisional gap: the maker prints no cold figure for ${wanted.map(({ role }) => ROLE_WORDS[role]).join(', ')}.`,
    });
  const strange = given.findIndex(({ role }) => wanted.every((each) => each.role !== role));
  if (strange >= 0)
    throw new Refusal('invalid', {
      fields: [
        { path: `setCold.figures.${strange}.role`, message: 'is printed by the maker, or not of this sheet' },
      ],
    });
  return sheet.limits.map(({ role }): ColdFigure => {
    const known = printed.find((each) => each.role === role);
    if (known) return known;
    const index = given.findIndex((each) => each.role === role);
    const hot = wanted.find((each) => each.role === role)!;
    const { min, max } = given[index] ?? { min: 0, max: 0 };
    const complaint = index < 0 ? 'say what it is set to cold' : provisionalComplaint(hot, { min, max });
    if (complaint)
      throw new Refusal('invalid', {
        detail: `${ROLE_WORDS[role]}: ${complaint}.`,
        fields: [
          { path: index < 0 ? 'setCold.figures' : `setCold.figures.${index}.min`, message: complaint },
        ],
      });
    return { role, min, max, figure: null, asWritten: '', provisional: true };
  });
}
