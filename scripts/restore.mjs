import { resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { restore } from './lib/backup.mjs';
import { withDatabase } from './lib/with-database.mjs';

const say = (text) => console.log(text);

/** Something would be replaced: that takes a word typed by hand. */
async function confirmed(what) {
  const lines = createInterface({ input: process.stdin, output: process.stdout });
  try {
    const ended = new Promise((resolve) => lines.once('close', () => resolve('')));
    const asked = lines.question(
      `The database holds ${what}.\nThey will be replaced. Type “replace” to go on: `,
    );
    return (await Promise.race([asked, ended])).trim() === 'replace';
  } finally {
    lines.close();
  }
}

async function main() {
  const [given, ...more] = process.argv.slice(2);
  if (!given || more.length > 0) throw new Error('Say where from: npm run restore FILE');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), given);
  await withDatabase(false, say, (url, profile) => restore(url, file, { profile, say, confirmed }));
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
