import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { requireOurs, rowsOf } from '../lib/dump-rows.mjs';

/** A dump is taken apart into rows; what else it holds is refused with its name, and never run. */
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'rows-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

const HEAD = `--
-- PostgreSQL database dump
--

\\restrict abc123

SET statement_timeout = 0;
SET client_encoding = 'UTF8';
SELECT pg_catalog.set_config('search_path', '', false);
`;
const taken = (body: string) => {
  const script = join(folder, 'dumped.sql');
  writeFileSync(script, HEAD + body);
  return rowsOf(script, folder);
};

describe('rows of a dump', () => {
  it('come out as they are, whatever line ends a document holds', async () => {
    const rows = `1\tone\u2028two\t\\N\n2\tDROP TABLE jobs;\t\\\\.\n3\tcarriage\rreturn\u2029\u0085\t\n`;
    const found = await taken(
      `COPY public.jobs (id, name, notes) FROM stdin;\n${rows}\\.\n\n` +
        `SELECT pg_catalog.setval('drizzle.__drizzle_migrations_id_seq', 8, true);\n`,
    );
    expect([...found.keys()]).toEqual(['public.jobs']);
    const { columns, rows: path } = found.get('public.jobs')!;
    expect(columns).toEqual(['id', 'name', 'notes']);
    expect(readFileSync(path, 'utf8')).toBe(rows);
  });

  it.each([
    ['a statement', 'DROP TABLE public.jobs;\n', 'DROP TABLE public.jobs;'],
    ['a program', `COPY public.jobs (id) FROM PROGRAM 'id';\n\\.\n`, 'FROM PROGRAM'],
    ['a command of psql', '\\! id\n', '! id'],
    ['a statement after a comment', `/* */ SELECT 1;\n`, 'SELECT 1'],
    ['a function that is called', `SELECT pg_catalog.pg_sleep(9);\n`, 'pg_sleep'],
    ['another setting', `SET session_authorization = 'x'; SELECT 1;\n`, 'session_authorization'],
    ['a table of somebody else', 'COPY public.accounts (id) FROM stdin;\n\\.\n', 'public.accounts'],
    [
      'columns that are more than names',
      'COPY public.jobs (id) FROM stdin; DROP TABLE x; --(a) FROM stdin;\n',
      'something else',
    ],
    [
      'a table twice',
      'COPY public.jobs (id) FROM stdin;\n\\.\nCOPY public.jobs (id) FROM stdin;\n\\.\n',
      'public.jobs',
    ],
    ['rows without an end', 'COPY public.jobs (id) FROM stdin;\n1\n', 'in the middle of its rows'],
  ])('%s is refused, and nothing was changed', async (_, body, words) => {
    const refused = taken(body);
    await expect(refused).rejects.toThrow(words);
    await expect(refused).rejects.toThrow('Nothing was changed.');
  });
});

describe('what a dump lists', () => {
  const list = (...entries: string[]): string =>
    [
      ';',
      '; Selected TOC Entries:',
      ';',
      ...entries.map((each, i) => `${i + 1}; 1259 16388 ${each} owner`),
    ].join('\n');

  it('is taken where it is ours', () => {
    const ours = list(
      'SCHEMA - drizzle',
      'TABLE public station_revisions',
      'TABLE DATA drizzle __drizzle_migrations',
      'DEFAULT drizzle __drizzle_migrations id',
      'SEQUENCE OWNED BY drizzle __drizzle_migrations_id_seq',
      'FK CONSTRAINT public stations stations_job_id_jobs_id_fk',
      'INDEX public stations_by_job',
      'FUNCTION public gangway_is_old(jsonb, integer)',
      'TRIGGER public stations stations_told',
    );
    expect(() => requireOurs(ours)).not.toThrow();
  });

  it.each([
    'TABLE public accounts',
    'TABLE DATA private jobs',
    'FUNCTION public gangway_extra()',
    'FUNCTION public evil(jsonb, integer)',
    'EVENT TRIGGER - run',
    'EXTENSION - file_fdw',
    'RULE public jobs run',
    'BLOB - 16500',
    'TRIGGER public accounts stations_told',
    'SEQUENCE public jobs_id_seq',
  ])('is refused with its name where it is not: %s', (entry) => {
    expect(() => requireOurs(list('TABLE public jobs', entry))).toThrow(
      `no backup of Gangway’s does: ${entry}.`,
    );
  });
});
