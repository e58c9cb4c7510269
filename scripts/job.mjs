import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { saveJob, takeJob } from './lib/job-files.mjs';
import { readPort } from './lib/ports.mjs';

const USE = `Use: npm run job save JOB FILE                    a job, by its name or id, into a file
     npm run job take FILE -- [--new-ids] [--take]    what a file would change; with --take it is taken in`;

const say = (text) => console.log(text);
const placeOf = (file) => resolve(process.env.INIT_CWD ?? process.cwd(), file);

async function main() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { 'new-ids': { type: 'boolean' }, take: { type: 'boolean' } },
  });
  const [what, ...rest] = positionals;
  const address = `http://127.0.0.1:${readPort(process.env.PORT, 4170)}`;
  if (what === 'save' && rest.length === 2) {
    const [wanted, file] = rest;
    say(`“${await saveJob(address, wanted, placeOf(file))}” is in ${placeOf(file)}.`);
  } else if (what === 'take' && rest.length === 1) {
    const asked = { newIds: values['new-ids'] ?? false, take: values.take ?? false };
    await takeJob(address, placeOf(rest[0]), asked, say);
  } else throw new Error(USE);
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
