/**
 * The addresses of the application's own pages, as its router has them: `:id` stands for what varies. The server answers each of them
 * with the application, so that a page can be opened by its address and reloaded.
 */
export const PAGES = [
  '/sign-in',
  '/',
  '/engines',
  '/engines/:id',
  '/builds/:id',
  '/sheets',
  '/sheets/new',
  '/sheets/:id',
  '/sheets/:id/revise',
  '/sheets/:id/draft',
  '/instruments',
  '/drawer',
  '/rechecks',
  '/usage',
  '/owners',
  '/fleet',
  '/shop',
  '/guide',
] as const;
export type PagePath = (typeof PAGES)[number];
