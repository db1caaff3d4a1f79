import { expect, type Page } from '@playwright/test';
import type { BuildHead, BuildWrite } from '@zero-lash/contract/builds';
import type { Round } from '@zero-lash/contract/measuring';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { lashPoints } from '@zero-lash/core/sheets';
import { write } from './bench.ts';

/** What is ticked off before anything is measured, and where it leads. */
const BEFORE_MEASURING = [
  ['take-in', ['cold', 'isolated', 'clean'], 'open-up'],
  ['open-up', ['marked', 'counted-out', 'plugged', 'gasket', 'lobes'], 'as-found'],
] as const;

/** Writes an engine down, on a sheet that is named. */
export async function onSheet(
  page: Page,
  sheet: string,
  name: string,
  base = process.env.BASE_URL!,
): Promise<{ readonly engine: string; readonly revisionId: string }> {
  const sheets = (await (await page.request.get(`${base}/api/sheets`)).json()) as {
    id: string;
    revisionId: string;
    name: string;
  }[];
  const { id: sheetId, revisionId } = sheets.find((each) => each.name === sheet)!;
  const { id } = await write(
    page,
    'engines',
    { name, serial: '', owner: '', duty: '', sheetId, usage: 10 },
    base,
  );
  return { engine: id, revisionId };
}

/** Puts an engine on the stand, ticks so many stages off, and opens its build's page there. */
async function onTheStand(
  page: Page,
  sheet: string,
  name: string,
  stages: number,
  base = process.env.BASE_URL!,
): Promise<void> {
  const { engine, revisionId } = await onSheet(page, sheet, name, base);
  const written = async (path: string, data: unknown) =>
    (await write(page, path, data, base)) as unknown as BuildWrite;
  const opened = await written(`engines/${engine}/builds`, {
    revisionId,
    complaint: 'Measured for a journey',
  });
  const id = opened.build;
  let { version } = opened.changes[0]!.row as BuildHead;
  for (const [stage, checks, to] of BEFORE_MEASURING.slice(0, stages)) {
    for (const check of checks) await written(`builds/${id}/ticks`, { stage, check, done: true });
    // a count over nothing wants a word
    if (stage === 'open-up') await written(`builds/${id}/notes`, { stage, text: 'Only the cover came off.' });
    const moved = await written(`builds/${id}/stage`, { to, version });
    ({ version } = moved.changes[0]!.row as BuildHead);
  }
  await page.goto(`${base}/builds/${id}`);
}

/** Puts an engine on the stand and opens its build's page at Open up. */
export async function atOpenUp(page: Page, sheet: string, name: string): Promise<void> {
  await onTheStand(page, sheet, name, 1);
  await expect(page.getByRole('heading', { name: 'Open up', level: 2 })).toBeVisible();
}

/** Puts an engine on the stand and opens its build's page at As found, without walking there. */
export async function atAsFound(page: Page, sheet: string, name: string, base?: string): Promise<void> {
  await onTheStand(page, sheet, name, BEFORE_MEASURING.length, base);
  await expect(page.getByRole('heading', { name: 'As found', level: 2 })).toBeVisible();
}

/**
 * Puts an engine on the stand and goes as far as a stage while its head is open, every gap found alike; opens its build's page
 * there, and gives the build's id.
 */
export async function withHeadOpen(
  page: Page,
  sheet: string,
  name: string,
  stage: 'wear' | 'head-work' | 'set',
  gap: (point: string) => number,
): Promise<string> {
  await atAsFound(page, sheet, name);
  const base = process.env.BASE_URL!;
  const id = page.url().split('/').at(-1)!;
  const read = async <Body>(path: string) =>
    (await (await page.request.get(`${base}/api/${path}`)).json()) as Body;
  const { rows: head } = await read<{ rows: BuildHead }>(`builds/${id}`);
  const { rows: rounds } = await read<{ rows: Round[] }>(`builds/${id}/rounds`);
  const { pattern } = await read<SheetRevision>(`sheet-revisions/${head.revisionId}`);
  for (const { key } of lashPoints(pattern))
    await write(page, `rounds/${rounds[0]!.id}/readings`, {
      ...{ point: key, asTyped: String(gap(key)), crankAngle: null },
      reading: { kind: 'value', value: gap(key), uncertainty: 0.005 },
    });
  let { version } = head;
  const go = async (to: string) => {
    const moved = (await write(page, `builds/${id}/stage`, { to, version })) as unknown as BuildWrite;
    ({ version } = moved.changes[0]!.row as BuildHead);
  };
  await go('wear');
  if (stage !== 'wear') {
    for (const check of ['stripped', 'looked'])
      await write(page, `builds/${id}/ticks`, { stage: 'wear', check, done: true });
    await go('head-work');
  }
  if (stage === 'set') {
    await write(page, `builds/${id}/ticks`, { stage: 'head-work', check: 'done', done: true });
    await go('set');
  }
  await page.goto(`${base}/builds/${id}`);
  return id;
}
