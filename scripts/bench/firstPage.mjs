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
/** What says that Today can be used. */
const FIRST_SHOWN = 'a[href^="/builds/"]';
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

/**
 * Opens a page in a fresh context until something of it is shown: ms from when it was gone to, as the page itself has them, frame by
 * frame, and kB of JavaScript as transferred.
 */
async function openOnce(browser, url, selector, cookie) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  if (cookie) await context.addCookies([cookie]);
  const page = await context.newPage();
  await page.addInitScript(noteWhenShown, selector);
  await page.goto(url, { waitUntil: 'commit' });
  const shown = await page
    .waitForFunction(() => globalThis.shownAt, null, { timeout: 20_000 })
    .catch(() => {
      throw new Error(`${url}: nothing is shown that is ${selector}`);
    });
  const ms = await shown.jsonValue();
  const bytes = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => new URL(name).pathname.endsWith('.js'))
      .reduce((sum, entry) => sum + entry.encodedBodySize, 0),
  );
  await context.close();
  return { ms, kB: bytes / 1000 };
}

/** In the page, before anything of it runs: notes the first frame in which something is there to be seen. */
function noteWhenShown(selector) {
  const look = () => {
    const found = [...document.querySelectorAll(selector)];
    if (found.some((each) => each.getClientRects().length > 0)) globalThis.shownAt = performance.now();
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
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
        ours.push(await openOnce(browser, `${base}/`, FIRST_SHOWN, viewer.inBrowser));
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

/** Every page of the application but the first, and what says that it can be used. */
async function pagesOf(base, cookie) {
  const read = async (path) => (await fetch(`${base}/api/${path}`, { headers: { cookie } })).json();
  const { engines } = await read('engines?search=snow%20groomer');
  const [{ id: engine, buildId: build }] = engines;
  const sheets = await read('sheets');
  const [{ id: sheet }] = sheets;
  const draft = sheets.find(({ status }) => status === 'draft');
  return [
    ['/engines', 'main a[href^="/engines/"]'],
    [`/engines/${engine}`, 'main .gap-bar, main a[href^="/builds/"]'],
    [`/builds/${build}`, '[data-point]'],
    ['/sheets', 'main a[href^="/sheets/"]'],
    ['/sheets/new', 'main input'],
    [`/sheets/${sheet}`, '[role="slider"]'],
    [`/sheets/${sheet}/revise`, 'main input'],
    ...(draft ? [[`/sheets/${draft.id}/draft`, 'main input']] : []),
    ['/instruments', 'main h2'],
    ['/drawer', 'main h2'],
    ['/rechecks', 'main a[href^="/builds/"]'],
    ['/usage', 'main input'],
    ['/owners', 'main form, main input, main button'],
    ['/fleet', 'main h2'],
    ['/shop', 'main form'],
    ['/guide', 'main h2, main p'],
  ];
}

/** Every other page, opened by its address from a cold cache, against the first page opened so in the same turn. */
export async function otherPages({ base, lead, browser }) {
  const pages = await pagesOf(base, lead.cookie);
  const opened = async (path, selector) => {
    const once = await openOnce(browser, `${base}${path}`, selector, lead.inBrowser);
    return once.ms;
  };
  const slowest = ({ first, others }) => others.toSorted((a, b) => b.ms - a.ms)[0].ms / first;
  return {
    turn: async () => {
      const first = await opened('/', FIRST_SHOWN);
      const others = [];
      for (const [path, selector] of pages) others.push({ path, ms: await opened(path, selector) });
      return { first, others };
    },
    rows: [
      {
        name: 'other-pages',
        what: (middle) =>
          `Every other page opened cold, against the first in ${ms(middle((turn) => turn.first))}: ${pages
            .map(([path], index) => [
              path.replace(/[\da-f-]{36}/, ':id'),
              middle(({ first, others }) => others[index].ms / first),
            ])
            .toSorted(([, a], [, b]) => b - a)
            .map(([path, ratio]) => `${path} ${ratio.toFixed(2)}`)
            .join(', ')}; the slowest`,
        figures: [under(slowest, 1.5, (ratio) => `${ratio.toFixed(2)} times`)],
        aim: 'under 1.50 times',
      },
    ],
  };
}
