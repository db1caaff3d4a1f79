import { readFile } from 'node:fs/promises';
import { expect, it } from 'vitest';
import { recordSchema } from '../recordSchema.ts';
import { sheetSchema } from '../sheetSchema.ts';

it('the schema that is handed out is the one that files are read by; npm run schema writes it again', async () => {
  const written = await readFile(new URL('../../docs/sheet.schema.json', import.meta.url), 'utf8');
  expect(JSON.parse(written)).toEqual(JSON.parse(JSON.stringify(sheetSchema())));
});

it('of an engine’s record is the one that is read by', async () => {
  const written = await readFile(new URL('../../docs/record.schema.json', import.meta.url), 'utf8');
  expect(JSON.parse(written)).toEqual(JSON.parse(JSON.stringify(recordSchema())));
});
