import { writeFileSync } from 'node:fs';
import { ensurePackages, ROOT } from './packages.mjs';

ensurePackages();
const { register } = await import('tsx/esm/api');
register();
const { sheetSchema } = await import('../contract/sheetSchema.ts');
const { format, resolveConfig } = await import('prettier');
const place = `${ROOT}docs/sheet.schema.json`;
const options = await resolveConfig(place);
writeFileSync(place, await format(JSON.stringify(sheetSchema()), { ...options, filepath: place }));
