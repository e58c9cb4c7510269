import { randomUUID } from 'node:crypto';
import { existsSync, openAsBlob } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';

/** Whole jobs as files, out of a Gangway that runs and into it. */

async function ask(address, path, more = {}) {
  let response;
  try {
    response = await fetch(`${address}/api/${path}`, more);
  } catch {
    throw new Error(`No Gangway answers at ${address}. Start it, or name where it runs: PORT=4171`);
  }
  if (response.ok) return response;
  const { detail, errors = [] } = await response.json().catch(() => ({}));
  const lines = errors.map(({ pointer, message }) => `${pointer || 'The file'} ${message}.`);
  throw new Error([detail ?? `It answers ${response.status}.`, ...lines].join('\n'));
}

/** @throws when no job, or more than one, is called so */
async function jobCalled(address, wanted) {
  const both = await Promise.all(['false', 'true'].map(async (archived) => (await ask(address, `jobs?archived=${archived}`)).json())); // prettier-ignore
  const jobs = both.flat();
  const found = jobs.filter(({ id, name }) => id === wanted || name === wanted);
  if (found.length === 1) return found[0];
  const all = (found.length > 1 ? found : jobs).map(({ id, name }) => `  ${id}  ${name}`);
  const why =
    found.length > 1
      ? `Several jobs are called “${wanted}”; give the id of one`
      : `There is no job “${wanted}”; these are there`;
  throw new Error([`${why}:`, ...all].join('\n'));
}

/** Writes a job, by its name or id, into a new file. @returns how it is called */
export async function saveJob(address, wanted, file) {
  if (existsSync(file)) throw new Error(`${file} is there already; name another.`);
  const { id, name } = await jobCalled(address, wanted);
  const response = await ask(address, `job-files/${id}`);
  // What is half there must not look like a job.
  const part = `${file}.part`;
  try {
    await writeFile(part, response.body);
    await rename(part, file);
  } catch (error) {
    await rm(part, { force: true });
    throw new Error(`${file} could not be written: ${error.message}`, { cause: error });
  }
  return name;
}

const counted = ({ added, changedTotal, same, onlyHere }) =>
  `${added} added, ${changedTotal} changed, ${same} the same${onlyHere > 0 ? `, ${onlyHere} here only: they stay` : ''}`; // prettier-ignore

const differing = ({ name, mine, theirs }) => `    ${name}: ${mine} → ${theirs}`;

/** What a file would change, in lines. */
function inLines({ job, head, stations, exposures }) {
  const changed = [...stations.changed, ...exposures.changed].flatMap((each) => [
    `  ${each.name}`,
    ...each.differences.map(differing),
  ]);
  return [
    job.isNew ? `It becomes a new job, “${job.name}”.` : `It changes “${job.name}”, which is here.`,
    `Stations: ${counted(stations)}`,
    `Log: ${counted(exposures)}`,
    ...head.map(differing),
    ...changed,
  ];
}

/** Looks at a job’s file; with `take` it is then taken in, if all is as it was looked at. */
export async function takeJob(address, file, { newIds, take }, say) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  const query = new URLSearchParams({ job: randomUUID(), ids: newIds ? 'new' : 'keep' });
  const send = async () =>
    (
      await ask(address, `job-files?${query}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: await openAsBlob(file),
      })
    ).json();
  const look = await send();
  for (const line of inLines(look)) say(line);
  if (!take) {
    say('Nothing is changed yet. Say --take to take it in.');
    return;
  }
  query.set('seen', look.token);
  const { job } = await send();
  say(`“${job.name}” is taken in: ${address}/jobs/${job.id}`);
}
