import { expect, test } from './test.ts';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { readFile } from 'node:fs/promises';
import { allSent, changeHands, onHead, openEngine, signIn, tickEverything } from './bench.ts';
import { readPdf } from '../server/test/pdf.ts';
import { withHeadOpen } from './onTheStand.ts';

test('a round from paper proves an engine, which is not signed off while a bolt is missing, and its papers are printed', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  const gap = (key: string) => (key.includes('E') ? 0.35 : 0.25);
  await withHeadOpen(page, 'Q4 Orchard', 'Closed for a journey', 'set', gap);
  await page.getByRole('button', { name: 'Go on to Prove' }).click();
  await expect(page.getByRole('heading', { name: 'Prove', level: 2 })).toBeVisible();
  // what is read before the two turns proves nothing
  await expect(page.getByText(/Two full turns by hand first/)).toBeVisible();
  await tickEverything(page.getByRole('group', { name: 'Tick off' }));
  await page.getByRole('button', { name: 'Type a round from paper' }).click();
  const fields = page.getByLabel(/^Gap at .*, from paper$/);
  await expect(fields).toHaveCount(8);
  await fields.first().focus();
  for (let row = 0; row < 8; row += 1) {
    const label = (await fields.nth(row).getAttribute('aria-label'))!;
    await expect(fields.nth(row)).toBeFocused();
    await page.keyboard.type(label.includes('E,') ? '0.34 0.36' : row === 0 ? '2.5' : '0.24 0.26');
    await page.keyboard.press('Enter');
    if (row === 0) await page.getByRole('button', { name: /^Use 0\.25/ }).click();
  }
  for (const key of ['1I', '4E']) await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  const table = page.getByRole('region', { name: 'From found to proved' });
  await expect(table.getByRole('row', { name: /^4E/ })).toContainText('0.34–0.36');
  await page.getByRole('button', { name: 'Go on to Close and sign off' }).click();
  await expect(page.getByRole('heading', { name: 'Close and sign off', level: 2 })).toBeVisible();
  await tickEverything(page.getByRole('group', { name: 'Tick off' }));
  await allSent(page);
  const id = page.url().split('/').at(-1)!;
  const bolt = {
    ...{ key: 'cover bolt, long', group: 'cover', name: 'Cover bolt, long', place: '', expected: 2 },
    ...{ out: 2, in: 1, note: '', dropped: false },
  };
  const wrote = await page.request.post(`${process.env.BASE_URL}/api/builds/${id}/ledger`, {
    data: { lines: [bolt] },
    headers: { 'idempotency-key': crypto.randomUUID() },
  });
  expect(wrote.ok()).toBe(true);
  await expect(page.getByText(/Cover bolt, long.*1 missing/).first()).toBeVisible();
  await expect(page.getByText(/nobody signs this build off/)).toBeVisible();
  await changeHands(page, 'Ilse Marrand');
  const sign = page.getByRole('button', { name: 'Sign off and plan the recheck' });
  await expect(sign).toBeDisabled();
  await page.getByRole('button', { name: /It will not balance/ }).click();
  await page.getByLabel('Why it does not balance').fill('Sheared; a new one is fitted');
  await page.getByRole('button', { name: 'It stands so' }).click();
  await expect(sign).toBeEnabled();
  await sign.click();
  await expect(page.getByRole('heading', { name: 'Run in and recheck', level: 2 })).toBeVisible();
  for (const name of ['Owner’s sheet (PDF)', 'Label (PDF)', 'Parts list (PDF)']) {
    const link = page.getByRole('link', { name });
    const answer = await page.request.get(`${process.env.BASE_URL}${await link.getAttribute('href')}`);
    expect([answer.status(), answer.headers()['content-type']], name).toEqual([200, 'application/pdf']);
    expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-');
  }
  // the page itself on paper: every point with its figures, and no form that nobody filled in
  const { text, pages } = await readPdf(await page.pdf({ format: 'A4' }));
  for (const key of ['1I', '1E', '2I', '2E', '3I', '3E', '4I', '4E'])
    expect(text).toMatch(new RegExp(`${key}[^]*?0\\.[23]4–0\\.[23]6`));
  for (const form of ['Figure', 'Abandon', 'Measured by', 'Stop 1'])
    expect(text, `${form} is a form`).not.toContain(form);
  expect(pages).toBeLessThan(4);
});

test('an engine’s record is written out, is known again where it is here, and a spoilt one changes nothing', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  await openEngine(page, 'Frost fan 5, Mill Field');
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Record (ZIP)' }).click();
  const file = await readFile(await (await waiting).path());
  await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name: 'Engines' }).click();
  await page.getByRole('button', { name: 'Import and export' }).click();
  const take = (name: string, buffer: Buffer) =>
    page.getByLabel('ZIP of a record').setInputFiles({ name, mimeType: 'application/zip', buffer });
  await take('engine.zip', file);
  await expect(page.getByText(/Frost fan 5, Mill Field is here already: nothing was written/)).toBeVisible();
  await take('cut.zip', file.subarray(0, file.length / 2));
  await expect(page.getByText(/The file is cut off, or is no ZIP. Nothing was imported./)).toBeVisible();

  // one of another shop: what it brings is said first, and what the file says otherwise than its figures is named
  const files = unzipSync(new Uint8Array(await readFile('server/test/fixtures/record1-headSaw.zip')));
  const text = strFromU8(files['record.json']!)
    .replace('Overmere Valley Engine Works', 'Head works of Lower Overmere')
    .replaceAll('Head saw, Pellow Mill', 'Head saw of another mill')
    .replace(/("readings": \[[^\]]*?"verdict": )"tight"/, '$1"in-spec"');
  await take('other.zip', Buffer.from(zipSync({ ...files, 'record.json': strToU8(text) })));
  const said = page.getByRole('status').filter({ hasText: 'Head saw of another mill' });
  await expect(said.getByText(/opens no build here until it is drafted and checked here/)).toBeVisible();
  await expect(
    said.getByText(/comes as an instrument that is not at hand here|is taken to be the/),
  ).toBeVisible();
  await said.getByText(/In one place the file says something else/).click();
  await expect(said.getByText(/the file says in-spec; here: tight/)).toBeVisible();
  await said.getByRole('button', { name: 'Take it in' }).click();
  await page.getByRole('link', { name: 'Head saw of another mill' }).first().click();
  await expect(
    page.getByText(/Its record came from Head works of Lower Overmere, imported by Ilse Marrand/),
  ).toBeVisible();
  await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name: 'Engines' }).click();
  await page.getByRole('button', { name: 'Import and export' }).click();

  const list =
    'name;sheet;owner;hours\nFan of a list;Q4 Orchard;Sellend Orchards;12,5\nFan without a sheet;Q99;;1';
  await page
    .getByLabel('CSV of engines')
    .setInputFiles({ name: 'engines.csv', mimeType: 'text/csv', buffer: Buffer.from(list) });
  await expect(page.getByText(/1 of 2 lines understood: Fan of a list/)).toBeVisible();
  await expect(page.getByText('Line 3: there is no spec sheet “Q99”.')).toBeVisible();
  await page.getByRole('button', { name: 'Take the 1 in' }).click();
  await expect(page.getByText('1 engine was imported.')).toBeVisible();
  await openEngine(page, 'Fan of a list');
  await expect(page.getByText('12.5').first()).toBeVisible();
});
