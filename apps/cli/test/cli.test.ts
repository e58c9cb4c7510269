import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { newStation } from '@gangway/station';
import { PDFDocument } from 'pdf-lib';
import { run } from '../src/main.js';

const folder = mkdtempSync(join(tmpdir(), 'gangway-cli-'));
const file = (name: string, text: string): string => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
const good = file('good.json', JSON.stringify(newStation('good')));

async function command(
  args: string[],
  stdin = '',
): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await run(args, {
    stdin: (async function* () {
      yield stdin;
    })(),
    out: (text) => (out += text),
    err: (text) => (err += text),
  });
  return { code, out, err };
}

describe('gangway evaluate', () => {
  it('prints one report a line, in order, standard input among them', async () => {
    const failing = {
      ...newStation('x'),
      movements: { rise_mm: 12, shift_mm: 12, tilt_deg: 0, swing_deg: 0 },
    };
    const { code, out, err } = await command(
      ['evaluate', good, '-', good],
      JSON.stringify(failing),
    );
    const reports = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(reports.map((report) => report.coverage.covered)).toEqual([true, false, true]);
    expect([code, err]).toEqual([0, '']);
  });

  it('names file, place and what is allowed for each problem, and still reads the rest', async () => {
    const bad = file('bad.json', JSON.stringify({ ...newStation('b'), aperture: 1, chain: 'x' }));
    const { code, out, err } = await command(['evaluate', bad, join(folder, 'none.json'), good]);
    expect(code).toBe(2);
    expect(out.trim().split('\n')).toHaveLength(1);
    expect(err).toContain(`${bad}: /chain: must be a list`);
    expect(err).toContain('none.json: /: there is no such file');
    expect(
      err
        .trim()
        .split('\n')
        .every((line) => line.startsWith(folder)),
    ).toBe(true);
  });

  it('refuses a 50 MB file by its size', async () => {
    const { code, err } = await command(['evaluate', file('huge.json', ' '.repeat(50_000_000))]);
    expect(code).toBe(2);
    expect(err).toContain('is 50 MB; a station file is at most 2.0 MB');
  });

  it('evaluates every demo station', async () => {
    const demo = fileURLToPath(new URL('../../server/demo/', import.meta.url));
    const files = readdirSync(demo).map((name) => join(demo, name));
    const { code, out } = await command(['evaluate', ...files]);
    expect(code).toBe(0);
    const covered = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line).coverage.covered as boolean);
    expect(covered.filter((each) => !each)).toHaveLength(1);
  });
});

describe('gangway', () => {
  it('prints the schema that ships', async () => {
    const { code, out } = await command(['schema']);
    expect(code).toBe(0);
    const shipped = new URL('../../../packages/station/station.schema.json', import.meta.url);
    expect(JSON.parse(out)).toEqual(JSON.parse(readFileSync(shipped, 'utf8')));
    const kit = await command(['schema', 'kit']);
    const shippedKit = new URL('../../../packages/station/kit.schema.json', import.meta.url);
    expect(JSON.parse(kit.out)).toEqual(JSON.parse(readFileSync(shippedKit, 'utf8')));
    expect((await command(['schema', 'boat'])).code).toBe(2);
  });

  it('says how it is used', async () => {
    expect((await command([])).code).toBe(2);
    expect((await command(['evaluate'])).err).toContain('gangway evaluate FILE');
    expect((await command(['help'])).out).toContain('gangway schema');
  });
});

describe('gangway card', () => {
  const out = (name: string): string => join(folder, name);

  it('makes one PDF of all stations, in order, on the paper that is asked for', async () => {
    const other = file('other.json', JSON.stringify(newStation('Митница')));
    const { code, err } = await command(['card', good, other, '-o', out('c.pdf'), '--paper', 'a5']);
    expect([code, err]).toEqual([0, '']);
    const pdf = await PDFDocument.load(readFileSync(out('c.pdf')));
    expect(pdf.getPageCount()).toBeGreaterThan(1);
    // 148 mm.
    expect((pdf.getPage(0).getWidth() * 25.4) / 72).toBeCloseTo(148, 3);
  });

  it('makes none when a file is no station, and says which', async () => {
    const bad = file('nocard.json', '{}');
    const { code, err } = await command(['card', good, bad, '-o', out('none.pdf')]);
    expect(code).toBe(2);
    expect(err).toContain(`${bad}: /`);
    expect(existsSync(out('none.pdf'))).toBe(false);
  });

  it.each([
    [['card', 'x.json'], '-o card.pdf'],
    [['card', '-o', 'c.pdf'], 'give the station or job files'],
    [['card', 'x.json', '-o'], 'needs a value'],
    [['card', 'x.json', '-o', 'c.pdf', '--paper', 'A3'], 'A6, A5, A4, Letter'],
    [['card', 'x.json', '--loud'], '--loud is no option'],
  ])('%j says what is missing', async (args, says) => {
    const { code, err } = await command(args);
    expect(code).toBe(2);
    expect(err).toContain(says);
  });

  it('a PDF that cannot be written is told', async () => {
    const { code, err } = await command(['card', good, '-o', join(folder, 'no', 'such', 'c.pdf')]);
    expect(code).toBe(2);
    expect(err).toContain('cannot be written (ENOENT)');
  });
});

describe('job files', () => {
  const station = '00000000-0000-4000-8000-0000000000a1';
  const lines = ['P1.RAW', 'P2.RAW'].map((name, i) => ({
    id: `00000000-0000-4000-8000-00000000000${i}`,
    station,
    at: '2026-05-14T09:30:05+02:00',
    planned: true,
    f_number: 8,
    file: name,
  }));
  const job = (more: object = {}): string =>
    JSON.stringify({
      format: 'gangway.job',
      version: 1,
      name: 'Orrin Quay',
      stations: [
        { id: station, document: newStation('Customs house') },
        {
          id: '00000000-0000-4000-8000-0000000000a2',
          document: {
            ...newStation('Too far'),
            movements: { rise_mm: 12, shift_mm: 12, tilt_deg: 0, swing_deg: 0 },
          },
        },
      ],
      exposures: lines,
      ...more,
    });

  it('are checked, a verdict a line for each station', async () => {
    const { code, out } = await command(['check', good, file('job.json', job())]);
    const said = out.trim().split('\n').map((line) => line.split('\t').slice(0, 2)); // prettier-ignore
    expect(said).toEqual([
      ['good', 'good'],
      ['good', 'Customs house'],
      ['FAILS', 'Too far'],
    ]);
    expect(code).toBe(1);
    expect((await command(['check', good])).code).toBe(0);
    const bad = await command(['check', file('no-job.json', job({ stations: [] }))]);
    expect(bad.code).toBe(2);
    expect(bad.err).toContain('/exposures/0/station: names a station that is not in this job');
  });

  it('give cards of all their stations', async () => {
    const out = join(folder, 'job-cards.pdf');
    const { code } = await command(['card', file('cards.json', job()), good, '-o', out]);
    expect(code).toBe(0);
    const pdf = await PDFDocument.load(readFileSync(out));
    expect(pdf.getPageCount()).toBeGreaterThanOrEqual(3);
  });

  it('give sidecars, merged with those that lie beside the pictures, and a second run changes nothing', async () => {
    const [pictures, out] = [mkdtempSync(join(folder, 'in-')), join(folder, 'out')];
    const kept = '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dev="http://example.org/" dev:Look="slate"/></rdf:RDF></x:xmpmeta>'; // prettier-ignore
    writeFileSync(join(pictures, 'P1.XMP'), kept);
    const asked = ['xmp', file('xmp.json', job()), '-o', out, '--files', pictures];
    expect(await command(asked)).toEqual({ code: 0, out: '2 written, 0 as they were\n', err: '' });
    expect(readFileSync(join(out, 'P1.xmp'), 'utf8')).toContain('dev:Look="slate"');
    expect(readFileSync(join(pictures, 'P1.XMP'), 'utf8')).toBe(kept);
    const first = readFileSync(join(out, 'P2.xmp'), 'utf8');
    expect((await command(asked)).out).toBe('0 written, 2 as they were\n');
    expect(readFileSync(join(out, 'P2.xmp'), 'utf8')).toBe(first);
    expect(readdirSync(out).sort()).toEqual(['P1.xmp', 'P2.xmp']);
  });

  it('name the sidecars whose match is not sure', async () => {
    const [first, second] = lines;
    const told = async (...exposures: object[]): Promise<string> => {
      const out = mkdtempSync(join(folder, 'unsure-'));
      return (await command(['xmp', file('unsure.json', job({ exposures })), '-o', out])).err;
    };
    const doubtful = { ...first, file_sure: false };
    expect(await told(doubtful, { ...second!, file_sure: true })).toBe(
      `P1.xmp: its match to ${first!.at} is not sure; look at it in the log\n`,
    );
    expect(await told({ ...doubtful, file_fixed: true }, second!)).toBe('');
  });

  it('leave a sidecar that cannot be read as it is, and say so', async () => {
    const out = mkdtempSync(join(folder, 'bad-'));
    const bomb = '<!DOCTYPE a [<!ENTITY b "ha">]><a>&b;</a>';
    writeFileSync(join(out, 'P1.xmp'), bomb);
    const { code, err } = await command(['xmp', file('bomb.json', job()), '-o', out]);
    expect(code).toBe(2);
    expect(err).toContain(
      'P1.xmp: It declares a document type; sidecars have none. It is left as it is.',
    );
    expect(readFileSync(join(out, 'P1.xmp'), 'utf8')).toBe(bomb);
    expect(existsSync(join(out, 'P2.xmp'))).toBe(true);
  });

  it('print their schema as it is shipped', async () => {
    const { out } = await command(['schema', 'job']);
    const shipped = new URL('../../../packages/station/job.schema.json', import.meta.url);
    expect(out).toBe(readFileSync(fileURLToPath(shipped), 'utf8'));
    expect((await command(['schema', 'station'])).code).toBe(0);
    expect((await command(['schema', 'x'])).code).toBe(2);
    expect((await command(['xmp', 'a', 'b', '-o', 'c'])).code).toBe(2);
  });
});
