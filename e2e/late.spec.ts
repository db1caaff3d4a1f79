import { expect, test } from './test.ts';
import type { BuildHead, BuildWrite } from '@zero-lash/contract/builds';
import type { Round } from '@zero-lash/contract/measuring';
import { pairs, allSent, entry, onHead, signIn, tickEverything, write } from './bench.ts';
import { withHeadOpen } from './onTheStand.ts';

const ENGINE = 'Late for a journey';

test('a tight reading that a tablet kept until after the signature stands beside it, and says not to run the engine', async ({
  page,
  context,
  browser,
}) => {
  await signIn(page, 'Tobin Hask');
  const gap = (key: string) => (key.includes('E') ? 0.35 : 0.25);
  const id = await withHeadOpen(page, 'Q4 Orchard', ENGINE, 'set', gap);
  await page.getByRole('button', { name: 'Go on to Prove' }).click();
  await expect(page.getByRole('heading', { name: 'Prove', level: 2 })).toBeVisible();
  await tickEverything(page.getByRole('group', { name: 'Tick off' }));
  await allSent(page);
  await context.setOffline(true);

  // a lead proves it at the desk, all in spec
  const desk = await browser.newContext();
  const lead = await desk.newPage();
  await signIn(lead, 'Ilse Marrand');
  const base = process.env.BASE_URL!;
  const rows = async <Rows>(path: string) =>
    (await (await lead.request.get(`${base}/api/builds/${id}${path}`)).json()) as { seq: number; rows: Rows };
  const { rows: rounds } = await rows<Round[]>('/rounds');
  for (const key of pairs(4))
    await write(lead, `rounds/${rounds.at(-1)!.id}/readings`, {
      ...{ point: key, asTyped: String(gap(key)), crankAngle: null },
      reading: { kind: 'value', value: gap(key), uncertainty: 0.005 },
    });

  // and out of reach somebody feels one of them tight after that
  await onHead(page, '1I').click();
  await entry(page).fill('0.05 0.06');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '1I')).toHaveAttribute('data-state', 'tight');

  let { version } = (await rows<BuildHead>('')).rows;
  const moved = (await write(lead, `builds/${id}/stage`, { to: 'close', version })) as unknown as BuildWrite;
  ({ version } = moved.changes[0]!.row as BuildHead);
  for (const check of ['counted-in', 'cover', 'primed', 'first-start'])
    await write(lead, `builds/${id}/ticks`, { stage: 'close', check, done: true });
  const { seq } = await rows<BuildHead>('');
  await write(lead, `builds/${id}/sign-off`, { version, seq, statement: '' });

  await context.setOffline(false);
  await allSent(page);
  await lead.goto(base);
  const failed = lead
    .getByRole('region', { name: 'Did not hold' })
    .getByRole('listitem')
    .filter({ hasText: ENGINE });
  await expect(failed).toContainText('do not run it');
  await failed.getByRole('link').click();
  const note = lead
    .getByRole('alert')
    .filter({ hasText: 'What came in after it was signed off says otherwise' });
  await expect(note).toContainText('1I tight');
  await expect(note).toContainText('Do not run it on before it is set again');
  const beside = lead.getByRole('region', { name: 'Came in after it was signed off' });
  await expect(beside).toContainText('1I measured: 0.05 0.06, tight; by Tobin Hask');
  // two ways on: set again, or left as it is, which wants a reason
  await expect(note.getByRole('button', { name: 'Set it again' })).toBeVisible();
  await note.getByRole('button', { name: 'Leave it as it is…' }).click();
  await note.getByRole('button', { name: 'Leave it as it is', exact: true }).click();
  await expect(note).toContainText('Say in a line why');
  await note.getByLabel('Because').fill('Typed for the fan beside it');
  await note.getByRole('button', { name: 'Leave it as it is', exact: true }).click();
  await expect(note).toHaveCount(0);
  await expect(lead.getByText(/left as it is.*Typed for the fan beside it/)).toBeVisible();
  await expect(beside).toContainText('1I measured');
  await desk.close();
});
