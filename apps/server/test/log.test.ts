import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { movedMoment, newStation, type LogChange, type Logged } from '@gangway/station';
import { loadDemo } from '../src/demo.js';
import { database, serve, type Running } from './helpers.js';

let end: () => Promise<void>;
let url: string;
let running: Running;

beforeAll(async () => {
  ({ url, end } = await database('log'));
  running = await serve(url);
});
afterAll(async () => {
  await running.end();
  await end();
});

const JSON_BODY = { 'Content-Type': 'application/json' };

let count = 0;
const newId = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
const line = (more: object = {}): Logged => ({
  id: newId(),
  at: '2026-05-14T09:30:05+02:00',
  planned: true,
  ...more,
});

async function newJob(name = 'Log'): Promise<string> {
  const { body } = await running.ask('POST', 'jobs', { id: newId(), name });
  return body.id;
}

const send = (job: string, changes: readonly LogChange[]) =>
  running.ask('POST', `jobs/${job}/log`, { changes });

/** The log as it is given out: how it stands, and its lines. */
async function logOf(job: string, since = 0) {
  const response = await fetch(`${running.address}/api/jobs/${job}/log?since=${since}`);
  const [head, ...lines] = (await response.text()).trim().split('\n').map((each) => JSON.parse(each)); // prettier-ignore
  return { head, lines: lines as { position: number; gone: boolean; document: Logged }[] };
}

describe('notes of a job', () => {
  test('are not written over by a page that has not seen them', async () => {
    const job = await newJob();
    const write = (notes: string | null, notesWas: string | null) =>
      running.ask('PATCH', `jobs/${job}`, { notes, notesWas });
    expect((await write('Keys at the ropewalk', null)).body.notes).toBe('Keys at the ropewalk');
    // Asked again after a lost answer: it is there already.
    expect((await write('Keys at the ropewalk', null)).status).toBe(200);
    const stale = await write('Tide at six', null);
    expect(stale.status).toBe(409);
    expect(stale.body.notes).toBe('Keys at the ropewalk');
    expect((await write(null, 'Keys at the ropewalk')).body.notes).toBeNull();
    expect((await write('x'.repeat(20_001), null)).status).toBe(422);
  });
});

describe('the log', () => {
  test('takes lines once and in their order, however often they are sent', async () => {
    const job = await newJob();
    const lines = [line(), line({ f_number: 8 }), line({ note: 'third' })];
    const adds = lines.map((each) => ({ id: each.id, add: each }));
    await send(job, adds.slice(0, 2));
    await send(job, adds.slice(0, 2));
    await send(job, adds);
    const { lines: found } = await logOf(job);
    expect(found.map(({ document }) => document)).toEqual(lines);
  });

  test('changes fields one by one, and shows where two hands part', async () => {
    const job = await newJob();
    const own = line({ f_number: 8, note: 'a' });
    await send(job, [{ id: own.id, add: own }]);
    const set = (was: unknown, to: unknown, name = 'note'): LogChange => ({
      id: own.id,
      set: { [name]: { was, to } },
    });
    expect((await send(job, [set('a', 'b')])).body.results[0]).toEqual({ id: own.id, outcome: 'done' }); // prettier-ignore
    // The answer was lost: sent again it is done once.
    expect((await send(job, [set('a', 'b')])).body.results[0].outcome).toBe('done');
    // Another page changes another field of the line it saw before.
    expect((await send(job, [set(8, 11, 'f_number')])).body.results[0].outcome).toBe('done');
    const clash = (await send(job, [set('a', 'c')])).body.results[0];
    expect(clash).toMatchObject({ outcome: 'clash', fields: ['note'], document: { note: 'b', f_number: 11 } }); // prettier-ignore
    const bad = (await send(job, [set(11, 'wide', 'f_number')])).body.results[0];
    expect(bad).toMatchObject({ outcome: 'refused', message: 'f number must be a number from 0.5 to 1,024, not "wide".' }); // prettier-ignore
    expect((await logOf(job)).lines[0]!.document).toMatchObject({ note: 'b', f_number: 11 });
  });

  test('takes lines out and back, and tells what came since', async () => {
    const job = await newJob();
    const [a, b] = [line(), line()];
    const { body } = await send(job, [{ id: a.id, add: a }, { id: b.id, add: b }]); // prettier-ignore
    await send(job, [{ id: a.id, remove: true }]);
    expect((await logOf(job)).lines.map(({ document }) => document.id)).toEqual([b.id]);
    const since = await logOf(job, body.latest);
    expect(since.lines).toMatchObject([{ gone: true, document: { id: a.id } }]);
    await send(job, [{ id: a.id, restore: true }]);
    expect((await logOf(job)).lines.map(({ document }) => document.id)).toEqual([a.id, b.id]);
  });

  test('keeps what is loaded, and lines of a station that is gone', async () => {
    const job = await newJob();
    const station = newId();
    await running.ask('POST', `jobs/${job}/stations`, {
      id: station,
      document: newStation('Pier'),
    });
    const own = line({ station });
    const films = [{ stock: 'Sheet film, slow', holder: '1', side: 'A' }];
    await send(job, [
      { id: job, films: { was: [], to: films } },
      { id: own.id, add: own },
    ]);
    expect((await logOf(job)).head.films).toEqual(films);
    const parted = await send(job, [{ id: job, films: { was: [], to: [] } }]);
    expect(parted.body.results[0]).toMatchObject({ outcome: 'clash', fields: ['films'] });
    await running.ask('PATCH', `stations/${station}`, { archived: true });
    await running.ask('DELETE', `stations/${station}`);
    const late = line({ station });
    const { body } = await send(job, [{ id: late.id, add: late }]);
    expect(body.results[0].document).not.toHaveProperty('station');
    const { lines } = await logOf(job);
    expect(lines).toHaveLength(2);
    expect(lines.every(({ document }) => document.station === undefined)).toBe(true);
  });

  test('refuses what is none, a line of another job’s among it, and takes the rest', async () => {
    const [job, other] = [await newJob(), await newJob('Other')];
    const [mine, theirs] = [line(), line()];
    await send(other, [{ id: theirs.id, add: theirs }]);
    const { body } = await send(job, [
      { id: theirs.id, add: theirs },
      { id: mine.id, add: mine },
      { id: newId(), add: line() },
    ]);
    expect(body.results.map(({ outcome }: { outcome: string }) => outcome)).toEqual(['refused', 'done', 'refused']); // prettier-ignore
    expect(body.results[0].message).toBe('This line is in the log of another job.');
    expect((await send(job, [{ id: mine.id }] as never)).status).toBe(422);
    expect((await send(newId(), [])).status).toBe(404);
  });
});

describe('clocks of devices', () => {
  const line = (at: string): Logged => ({ id: newId(), at, planned: true });
  const post = (job: string, lines: readonly Logged[], now?: number) =>
    running.ask('POST', `jobs/${job}/log`, {
      changes: lines.map((each) => ({ id: each.id, add: each })),
      ...(now === undefined ? {} : { now }),
    });
  const newJob = async (): Promise<string> =>
    (await running.ask('POST', 'jobs', { name: 'Clocks' })).body.id;
  const read = async (job: string): Promise<Logged[]> =>
    (await (await fetch(`${running.address}/api/jobs/${job}/log`)).text())
      .trim()
      .split('\n')
      .slice(1)
      .map((text) => (JSON.parse(text) as { document: Logged }).document);
  const YEAR_MS = 365.25 * 86_400_000;

  test('a tap by one that is ten years ahead, or lost, is taken and marked', async () => {
    const job = await newJob();
    for (const [at, nowMs] of [
      [new Date(Date.now() + 10 * YEAR_MS).toISOString(), Date.now() + 10 * YEAR_MS],
      ['1970-01-01T01:03:00+01:00', 180_000],
    ] as const) {
      const tap = line(at.replace(/\.\d+Z$/, 'Z'));
      const { status, body } = await post(job, [tap], nowMs);
      expect(status).toBe(200);
      const [{ outcome, document }] = body.results;
      expect(outcome).toBe('done');
      // Off by what the server’s own clock says, to the seconds a request takes.
      expect(Math.abs(document.clock_off_s - (Date.now() - nowMs) / 1000)).toBeLessThan(30);
      const right = movedMoment(document.at, document.clock_off_s)!;
      expect(Math.abs(Date.parse(right) - Date.now())).toBeLessThan(60_000);
    }
    const near = line(new Date().toISOString().replace(/\.\d+Z$/, 'Z'));
    expect((await post(job, [near], Date.now() - 60_000)).body.results[0]).toEqual({
      id: near.id,
      outcome: 'done',
    });
  });

  test('lines of two devices stand by time, however late they come', async () => {
    const job = await newJob();
    const at = (minute: number): string => `2026-05-14T09:${String(minute).padStart(2, '0')}:00Z`;
    const [one, two] = [[0, 10, 20, 50].map(at), [5, 12, 14, 21, 49, 55].map(at)];
    await post(job, one.map(line));
    // The other one was out of reach: its lines come all at once, later, in its own zone.
    const zoned = two.map((each) =>
      movedMoment(each, 0)!.replace('09:', '11:').replace('Z', '+02:00'),
    );
    const { body } = await post(job, zoned.map(line));
    expect(body.before).toBe(-1);
    const minutes = (await read(job)).map((each) => new Date(each.at).getUTCMinutes());
    expect(minutes).toEqual([0, 5, 10, 12, 14, 20, 21, 49, 50, 55]);
    // Many times into one gap: room is made.
    for (let n = 0; n < 60; n++) await post(job, [line('2026-05-14T09:30:00Z')]);
    const all = (await read(job)).map((each) => new Date(each.at).getUTCMinutes());
    expect(all).toEqual([...all].sort((a, b) => a - b));
    expect(all).toHaveLength(70);
  });
});

describe('a whole job as a file', () => {
  const textOf = async (job: string): Promise<string> =>
    (await fetch(`${running.address}/api/job-files/${job}`)).text();
  const take = (text: string | Buffer, asked: Record<string, string>) =>
    fetch(`${running.address}/api/job-files?${new URLSearchParams(asked)}`, {
      method: 'POST',
      headers: JSON_BODY,
      body: text as string,
    }).then(async (response) => ({ status: response.status, body: await response.json() }));
  const takeIn = async (text: string, asked: Record<string, string>) => {
    const { body } = await take(text, asked);
    return take(text, { ...asked, seen: body.token });
  };

  test('the whole demo goes out and into an empty database byte for byte', async () => {
    const empty = await database('log-empty');
    const there = await serve(empty.url);
    try {
      await loadDemo(running.connection);
      for (const n of [1, 2]) {
        const job = `a0000000-0000-4000-8000-00000000000${n}`;
        const text = await textOf(job);
        expect(await textOf(job)).toBe(text);
        const post = (more: string) =>
          fetch(`${there.address}/api/job-files?job=${job}${more}`, {
            method: 'POST',
            headers: JSON_BODY,
            body: text,
          });
        const { token } = (await (await post('')).json()) as { token: string };
        expect((await post(`&seen=${token}`)).status).toBe(200);
        const again = await (await fetch(`${there.address}/api/job-files/${job}`)).text();
        expect(again).toBe(text);
        const look = (await (await post('')).json()) as { stations: { same: number; changed: unknown[] } }; // prettier-ignore
        expect(look.stations).toMatchObject({ added: 0, changedTotal: 0, onlyHere: 0 });
      }
    } finally {
      await there.end();
      await empty.end();
    }
  });

  test('an edited file is shown as differences, and only what was shown is taken', async () => {
    const job = await newJob('Edited');
    const station = newId();
    await running.ask('POST', `jobs/${job}/stations`, {
      id: station,
      document: newStation('Pier'),
    });
    const own = line({ station, f_number: 8 });
    await send(job, [{ id: own.id, add: own }]);
    const file = JSON.parse(await textOf(job));
    file.stations[0].document.aperture = 11;
    file.exposures[0].note = 'from the desk';
    file.notes = 'Client wants it wide';
    file.unknown_yet = { a: 1 };
    const text = JSON.stringify(file);
    const look = await take(text, { job: newId() });
    expect(look.body.job).toEqual({ id: job, name: 'Edited', isNew: false });
    expect(look.body.stations.changed).toEqual([
      { name: 'Pier', differences: [{ name: 'aperture', mine: '8', theirs: '11' }] },
    ]);
    expect(look.body.exposures.changed[0].differences).toEqual([
      { name: 'note', mine: '—', theirs: 'from the desk' },
    ]);
    // Something else is changed here before it is taken.
    await send(job, [{ id: own.id, set: { rating: { to: 3 } } }]);
    const late = await take(text, { job: newId(), seen: look.body.token });
    expect(late.status).toBe(409);
    expect((await takeIn(text, { job: newId() })).status).toBe(200);
    const now = JSON.parse(await textOf(job));
    expect(now.stations[0].document.aperture).toBe(11);
    expect(now).toMatchObject({ notes: 'Client wants it wide', unknown_yet: { a: 1 } });
    const { body: revisions } = await running.ask('GET', `stations/${station}/revisions`);
    expect(revisions).toHaveLength(2);
  });

  test('with new ids it is a job of its own, and made once', async () => {
    const job = await newJob('Twice');
    const own = line();
    await send(job, [{ id: own.id, add: own }]);
    const text = await textOf(job);
    const id = newId();
    await takeIn(text, { job: id, ids: 'new' });
    expect((await takeIn(text, { job: id, ids: 'new' })).body).toMatchObject({ taken: true });
    const copy = JSON.parse(await textOf(id));
    expect(copy.name).toBe('Twice (copy)');
    expect(copy.exposures).toHaveLength(1);
    expect(copy.exposures[0].id).not.toBe(own.id);
  });

  test('refuses ids of several jobs, what is no job, and what is too large', async () => {
    const [a, b] = [await newJob('First'), await newJob('Second')];
    const [one, two] = [line(), line()];
    await send(a, [{ id: one.id, add: one }]);
    await send(b, [{ id: two.id, add: two }]);
    const file = JSON.parse(await textOf(a));
    file.exposures.push(two);
    const mixed = await take(JSON.stringify(file), { job: newId() });
    expect(mixed.status).toBe(409);
    expect(mixed.body.detail).toBe('Its stations and exposures belong to several jobs here: “First” and “Second”. Take it in with new ids, as a job of its own.'); // prettier-ignore
    expect((await take('{"format": "gangway.kit"}', { job: newId() })).body.errors[0]).toEqual({
      pointer: '/format',
      message: 'must be "gangway.job" for a job, not "gangway.kit"',
    });
    expect((await take('nonsense', { job: newId() })).status).toBe(422);
    const large = await take(Buffer.alloc(100_000_000, 32), { job: newId() }).catch(() => null);
    // Refused before it is read: the sender may find the way cut.
    if (large)
      expect(large.body.detail).toBe('The file is 100 MB or more; at most 50 MB are taken.');
    expect((await running.ask('GET', 'jobs')).status).toBe(200);
  });
});
