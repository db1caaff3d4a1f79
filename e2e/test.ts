import { test as base, type BrowserContext, type Response } from '@playwright/test';
import { describedPaths, publishedAnswers } from '../scripts/published.mjs';

export * from '@playwright/test';

const misfitOf = publishedAnswers();
const describedPath = describedPaths();

/** What is wrong with an answer by the published description of its route; null where nothing is, or it is none of the program's. */
async function misfitIn(response: Response): Promise<string | null> {
  const { pathname } = new URL(response.url());
  const type = (response.headers()['content-type'] ?? '').split(';')[0]!;
  if (!pathname.startsWith('/api/') || pathname === '/api/openapi.json' || !type.endsWith('json'))
    return null;
  const path = describedPath(pathname);
  if (path === null) return response.status() === 404 ? null : `${pathname} is not described`;
  let body: unknown;
  try {
    body = await response.json();
  } catch {
    // the page went on, or closed, before it was there: nobody saw it
    return null;
  }
  return misfitOf(response.request().method().toLowerCase(), path, response.status(), type, body);
}

/**
 * Journeys. Where `holdsAnswers` is set, every answer that any browser of theirs gets is held to what is published of its route:
 * that is asked where every page is opened once, and of every answer in the tests of the server, and costs a tenth of a journey.
 */
export const test = base.extend<{ holdsAnswers: boolean; answersHold: undefined }>({
  holdsAnswers: [false, { option: true }],
  answersHold: [
    async ({ browser, holdsAnswers }, use) => {
      if (!holdsAnswers) return use(undefined);
      const misfits: Promise<string | null>[] = [];
      const watch = (context: BrowserContext) =>
        context.on('response', (response) => void misfits.push(misfitIn(response)));
      for (const context of browser.contexts()) watch(context);
      browser.on('context', watch);
      await use(undefined);
      browser.off('context', watch);
      const wrong = (await Promise.all(misfits)).filter((each) => each !== null);
      base.expect([...new Set(wrong)]).toEqual([]);
    },
    { auto: true },
  ],
});
