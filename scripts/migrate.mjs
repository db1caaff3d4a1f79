import { loadMigrations } from './migrations.mjs';
import { stop } from './packages.mjs';
import { readArguments, withShopDatabase } from './shopDatabase.mjs';

const { has, words } = readArguments(['--empty']);
const [way = 'list'] = words;
if (!['up', 'down', 'list'].includes(way))
  stop(
    'npm run migrate -- up brings the database to the newest schema, down takes one step back, list says where it is.',
  );

await withShopDatabase(has('--empty'), async ({ url }) => {
  const migrations = await loadMigrations();
  if (way === 'up') await migrations.up(url);
  if (way === 'down') {
    const undone = await migrations.down(url);
    process.stdout.write(undone ? `${undone} undone.\n` : 'There is nothing to undo.\n');
  }
  const done = new Set(await migrations.done(url));
  for (const name of migrations.names) process.stdout.write(`${done.has(name) ? 'done' : '    '}  ${name}\n`);
});
