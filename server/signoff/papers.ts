import { id } from '@zero-lash/contract/values';
import { positionSchool } from '@zero-lash/contract/turning';
import { heldAgainst, meantAt, stageOf } from '@zero-lash/core/builds';
import { heldHot } from '@zero-lash/core/measuring';
import { firstSchool } from '@zero-lash/core/turning';
import type { FastifyInstance } from 'fastify';
import type { Knex } from 'knex';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { readHead } from '../builds/read.ts';
import { findEngine } from '../engines/read.ts';
import { effectiveSheet } from '../sheets/effectiveSheet.ts';
import { findRevision } from '../sheets/read.ts';
import { printedOrigin } from '../share/origin.ts';
import { departsInWords } from '../parts/store.ts';
import { readOwnerSheet } from './ownerSheet.ts';

/** How the newest build of an engine departs from its sheet; empty where it does not, or where it was measured hot since. */
async function departsNow(db: Knex, engineId: string): Promise<string> {
  const last = await db('builds').where({ engine_id: engineId }).orderBy('number', 'desc').first('id');
  if (!last) return '';
  const { rows: head } = await readHead(db, last.id);
  const checked = await db('rechecks').where({ build_id: last.id, status: 'done' }).first('id');
  const setCold = checked ? null : head.setCold;
  return departsInWords((await findRevision(db, head.revisionId)).limits, { ...head, setCold });
}

/** The papers of a build and of its engine: what an owner is given, what is stuck on it, what is measured with a pencil. */
export function paperRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const inline = (name: string) => `inline; filename="${name}.pdf"`;

  app.get('/builds/:id/owner-sheet', { schema: { params } }, async (request, reply) => {
    const sheet = await readOwnerSheet(app.db, request.params.id);
    return reply
      .header('content-disposition', inline('owner-sheet'))
      .type('application/pdf')
      .send(await app.papers.draw('owner-sheet', sheet));
  });

  app.get(
    '/builds/:id/measuring-sheet',
    { schema: { params, querystring: z.object({ school: positionSchool.optional() }) } },
    async (request, reply) => {
      const { rows: head } = await readHead(app.db, request.params.id);
      const printed = await findRevision(app.db, head.revisionId);
      const effective = effectiveSheet(printed, head);
      const { measures } = stageOf(head.stage);
      // what is measured now: in service an engine that was set cold is measured hot
      const isHot = (row: (typeof effective.limits)[number]) =>
        row.whenHot !== null && measures === 'recheck' && heldHot(row.whenHot, heldAgainst(measures, '', []));
      const sheet = {
        ...effective,
        condition: meantAt(effective, measures)!.condition,
        limits: effective.limits.map((row) => (isHot(row) ? { ...row, ...row.whenHot, whenHot: null } : row)),
      };
      const shop = (await app.db('shop').first('unit'))!;
      return reply
        .header('content-disposition', inline('measuring-sheet'))
        .type('application/pdf')
        .send(
          await app.papers.draw('measuring-sheet', {
            ...{ engine: head.engine.name, build: `Build ${head.number}`, sheet, unit: shop.unit },
            caution: departsInWords(printed.limits, head),
            school: request.query.school ?? firstSchool(sheet.pattern),
          }),
        );
    },
  );

  app.get('/engines/:id/label', { schema: { params } }, async (request, reply) => {
    const engine = await findEngine(app.db, request.params.id);
    const origin = await printedOrigin(app.db, request);
    return reply
      .header('content-disposition', inline('label'))
      .type('application/pdf')
      .send(
        await app.papers.draw('label', {
          engine: engine.name,
          lines: [engine.serial && `serial ${engine.serial}`, engine.owner, engine.sheetName].filter(Boolean),
          caution: await departsNow(app.db, engine.id),
          address: origin && `${origin}/engines/${engine.id}`,
        }),
      );
  });
  done();
}
