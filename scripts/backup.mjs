import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { backup, inWords } from './lib/backup.mjs';
import { withDatabase } from './lib/with-database.mjs';

const say = (text) => console.log(text);

async function main() {
  const [given, ...more] = process.argv.slice(2);
  if (!given || more.length > 0) throw new Error('Say where to: npm run backup FILE');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), given);
  if (existsSync(file)) throw new Error(`${file} is there already; name another.`);
  await withDatabase(true, say, async (url) => {
    const { tables } = await backup(url, file, say);
    say(`${file} holds ${inWords(tables)}.`);
  });
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
