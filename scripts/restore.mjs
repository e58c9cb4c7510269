import { resolve } from 'node:path';
import { createInterface } from 'node:readline';
import { restore } from './lib/restore.mjs';
import { withDatabase } from './lib/with-database.mjs';

const say = (text) => console.log(text);

/** What cannot be undone takes a word typed by hand. */
async function confirmed(what, word) {
  process.stdout.write(`${what}\nType “${word}” to go on: `);
  const { value } = await lines.next();
  return (value ?? '').trim() === word;
}

/** Answers, a line each; none where the input ends. */
const input = createInterface({ input: process.stdin });
const lines = input[Symbol.asyncIterator]();

async function main() {
  const [given, ...more] = process.argv.slice(2);
  if (!given || more.length > 0) throw new Error('Say where from: npm run restore FILE');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), given);
  await withDatabase(false, say, (url, profile) => restore(url, file, { profile, say, confirmed }));
  input.close();
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
