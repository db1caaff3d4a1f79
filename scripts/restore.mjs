import { resolve } from 'node:path';
import { restore } from './backups.mjs';
import { loadMigrations } from './migrations.mjs';
import { stop } from './packages.mjs';
import { readArguments, withShopDatabase } from './shopDatabase.mjs';

const { has, words } = readArguments(['--empty', '--over']);
if (words.length !== 1)
  stop('Name the backup: npm run restore -- FILE (--over where a shop is there already).');
const file = resolve(process.env.INIT_CWD ?? '.', words[0]);

await withShopDatabase(has('--empty'), async ({ url, bin }) => {
  const migrations = await loadMigrations();
  const { before } = await restore({
    ...{ url, bin, file, over: has('--over') },
    ...{ migrations: migrations.known, migrate: migrations.up },
  });
  process.stdout.write(
    `${file} is the shop now. Everybody signs in once more where the secret is another.\n`,
  );
  if (before) process.stdout.write(`What was there before is kept as the database ${before}.\n`);
});
