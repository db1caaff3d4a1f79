import { resolve } from 'node:path';
import { backUp, checkBackup } from './backups.mjs';
import { loadMigrations } from './migrations.mjs';
import { ROOT, stop } from './packages.mjs';
import { readArguments, withShopDatabase } from './shopDatabase.mjs';

const { has, words } = readArguments(['--empty', '--check']);
if (has('--check') && words.length !== 1) stop('Name the backup: npm run backup -- --check FILE');
const stamp = new Date().toISOString().slice(0, 16).replace('T', '-').replace(':', '');
const file = words[0] ? resolve(process.env.INIT_CWD ?? '.', words[0]) : `${ROOT}backups/${stamp}.backup`;

await withShopDatabase(has('--empty'), async ({ url, bin }) => {
  if (has('--check')) {
    const { known, up } = await loadMigrations();
    const found = await checkBackup({ url, bin, file, migrations: known, migrate: up });
    process.stdout.write(
      `${file} can be restored: ${found.engines} engines, ${found.builds} builds, ${found.readings} readings.\n`,
    );
    return;
  }
  const { bytes } = await backUp({ url, bin, file });
  process.stdout.write(`${file}: ${Math.ceil(bytes / 1024).toLocaleString('en-GB')} kB, read back whole.\n`);
});
