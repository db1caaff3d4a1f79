import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { extname, join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { ROOT } from '../packages.mjs';
import { ms, under } from './rows.mjs';
import { median } from './table.mjs';

/** Openings of each page a turn. */
const OPENINGS = 3;
const TYPES = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css', '.woff2': 'font/woff2' };

/** Builds and serves a page with the application's framework and no content. */
async function serveEmptyPage() {
  const out = `${ROOT}.data/bench-empty`;
  const run = spawnSync(
    `${ROOT}node_modules/.bin/vite`,
    ['build', '--config', 'bench/vite.config.ts', '--outDir', out, '--emptyOutDir', '--logLevel', 'warn'],
    { cwd: `${ROOT}web`, stdio: ['ignore', 2, 2] },
  );
  if (run.status !== 0) throw new Error('the empty page could not be built');
  const packed = new Map();
  const server = createServer((request, response) => {
    const path = join(out, request.url === '/' ? 'index.html' : request.url);
    if (!path.startsWith(out) || !existsSync(path)) return response.writeHead(404).end();
    response.writeHead(200, {
      'content-type': TYPES[extname(path)] ?? 'image/svg+xml',
      'content-encoding': 'br',
    });
    // once, as the application's own files are: what is measured is the page
    if (!packed.has(path)) packed.set(path, brotliCompressSync(readFileSync(path)));
    return response.end(packed.get(path));
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { url: `http://127.0.0.1:${server.address().port}/`, close: () => server.close() };
}

/** Opens a page in a fresh context until something is visible; ms, and kB of JavaScript as transferred. */
async function openOnce(browser, url, selector, cookie) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  if (cookie) await context.addCookies([cookie]);
  const page = await context.newPage();
  const started = performance.now();
  await page.goto(url, { waitUntil: 'commit' });
  await page.locator(selector).first().waitFor();
  const ms = performance.now() - started;
  const bytes = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => new URL(name).pathname.endsWith('.js'))
      .reduce((sum, entry) => sum + entry.encodedBodySize, 0),
  );
  await context.close();
  return { ms, kB: bytes / 1000 };
}

/** Today, from a cold cache, against the empty page. */
export async function firstPage({ base, viewer, browser, atEnd }) {
  const empty = await serveEmptyPage();
  atEnd(() => empty.close());
  const kBOf = ({ kB }) => kB;
  return {
    turn: async () => {
      const [ours, bare] = [[], []];
      for (let opening = 0; opening < OPENINGS; opening += 1) {
        bare.push(await openOnce(browser, empty.url, 'h1'));
        ours.push(await openOnce(browser, `${base}/`, 'a[href^="/builds/"]', viewer.inBrowser));
      }
      const openedIn = (runs) => median(runs.map((run) => run.ms));
      return { ours: openedIn(ours), bare: openedIn(bare), kB: kBOf(ours[0]), bareKB: kBOf(bare[0]) };
    },
    rows: [
      {
        name: 'first-page-size',
        what: (middle) =>
          `First page: JavaScript transferred, by brotli, ${middle((turn) => turn.kB).toFixed(0)} kB; an empty page of the framework ${middle((turn) => turn.bareKB).toFixed(0)} kB`,
        figures: [
          under(
            (turn) => turn.kB - turn.bareKB,
            30,
            (kB) => `${kB.toFixed(0)} kB more`,
          ),
        ],
        aim: 'under 30 kB more',
      },
      {
        name: 'first-page',
        what: (middle) =>
          `First page: usable in ${ms(middle((turn) => turn.ours))}; an empty page ${ms(middle((turn) => turn.bare))}`,
        figures: [
          under(
            (turn) => turn.ours / turn.bare,
            1.35,
            (ratio) => `${ratio.toFixed(2)} times`,
          ),
        ],
        aim: 'under 1.35 times',
      },
    ],
  };
}
