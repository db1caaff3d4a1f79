import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

describe('text that a browser is told to show larger', () => {
  it('is larger here too: no size of text and no width of a page stands in pixels', () => {
    const sheets = readdirSync('web', { recursive: true, encoding: 'utf8' })
      .filter((path) => /^(?!dist|node_modules).*\.css$/.test(path))
      .map((path) => `web/${path}`);
    expect(sheets.length).toBeGreaterThan(8);
    for (const sheet of sheets)
      expect(readFileSync(sheet, 'utf8').match(/font-size: [\d.]+px|@media[^{]*px/g), sheet).toBeNull();
  });
});
