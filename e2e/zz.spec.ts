import { writeFileSync } from 'node:fs';
import { test } from './test.ts';
import { open, signIn } from './bench.ts';
test('look', async ({ page }) => {
  test.setTimeout(280_000);
  await signIn(page, 'Ilse Marrand');
  const session = await (await page.request.get(`${process.env.BASE_URL}/api/session`)).json();
  console.log(JSON.stringify(session.shop));
  const out: string[] = [];
  const say = async (name: string) => {
    await page.waitForTimeout(900);
    const lines = await page.evaluate(() => {
      const found = new Set<string>();
      const walk = document.createTreeWalker(document.querySelector('main') ?? document.body, NodeFilter.SHOW_TEXT);
      const re = /\bmm\b|N·m|\bbar\b|°C|µm|\bkPa\b/;
      while (walk.nextNode()) { const p = walk.currentNode.parentElement!; if (re.test(walk.currentNode.textContent!)) found.add((p.closest('p,li,td,th,label,button,h2,h3,dd,dt,div')?.textContent ?? '').slice(0, 160)); }
      for (const e of document.querySelectorAll('[aria-label],[placeholder],[title]')) for (const a of ['aria-label','placeholder','title']) if (re.test(e.getAttribute(a) ?? '')) found.add(`@${a} ${e.getAttribute(a)!.slice(0,140)}`);
      return [...found];
    });
    out.push(`== ${name}`, ...lines);
  };
  await open(page, '/');
  await page.evaluate(() => 0);
  // the device reads in thou
  await open(page, '/');
  await page.getByRole('contentinfo').getByRole('button', { name: /mm|thou|in/i }).first().click().catch(() => out.push('no unit button'));
  for (const p of ['/', '/rechecks', '/engines', '/sheets', '/instruments', '/pieces', '/drawer', '/fleet', '/shop', '/know-how', '/records', '/owners', '/guide', '/sheets/new']) { await open(page, p); await say(p); }
  const list = async (path: string) => (await (await page.request.get(`${process.env.BASE_URL}${path}`)).json());
  const sheets = await list('/api/sheets');
  for (const s of sheets) { await open(page, `/sheets/${s.id}`); await say(`sheet ${s.name}`); }
  const { engines } = await list('/api/engines') as { engines: { id: string; name: string; buildId: string | null }[] };
  for (const e of engines.slice(0, 9)) { await open(page, `/engines/${e.id}`); await say(`engine ${e.name}`); }
  for (const e of engines.filter((e) => e.buildId)) { await open(page, `/builds/${e.buildId}`); await say(`build ${e.name}`); 
    const tabs = await page.getByRole('navigation', { name: /stage/i }).getByRole('link').count().catch(() => 0); console.log(e.name, tabs); }
  writeFileSync('/tmp/mm.txt', out.join('\n'));
});
