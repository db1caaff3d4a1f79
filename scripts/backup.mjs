import { resolve } from 'node:path';
import { backUp } from './backups.mjs';
import { ROOT } from './packages.mjs';
import { readArguments, withShopDatabase } from './shopDatabase.mjs';

const { has, words } = readArguments(['--empty']);
const stamp = new Date().toISOString().slice(0, 16).replace('T', '-').replace(':', '');
const file = words[0] ? resolve(process.env.INIT_CWD ?? '.', words[0]) : `${ROOT}backups/${stamp}.backup`;

await withShopDatabase(has('--empty'), async ({ url, bin }) => {
  const { bytes } = await backUp({ url, bin, file });
  process.stdout.write(`${file}: ${Math.ceil(bytes / 1024).toLocaleString('en-GB')} kB, read back whole.\n`);
});
