import { closeSync, createReadStream, openSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** What a dump holds: looked through by its list of contents, and taken apart into rows. Nothing of it is run. */

/** Our tables, each after those it hangs on; others are somebody else's. */
export const TABLES_IN_ORDER = [
  'jobs',
  'stations',
  'station_revisions',
  'kit_items',
  'kit_revisions',
  'rigs',
  'rig_revisions',
  'exposures',
  'settings',
];
export const MIGRATIONS = 'drizzle.__drizzle_migrations';
export const OURS = new Set([...TABLES_IN_ORDER.map((name) => `public.${name}`), MIGRATIONS]);

/** What else one of our own dumps holds, by the words of its list of contents. */
const KNOWN_ENTRIES = [
  /^(?:TABLE|TABLE DATA|DEFAULT) (?:public|drizzle) (\S+)(?: id)?$/,
  /^(?:CONSTRAINT|FK CONSTRAINT|TRIGGER) (?:public|drizzle) (\S+) \S+$/,
  /^INDEX public (\S+)$/,
  /^FUNCTION public gangway_(?:is_old|tell)\([\w, ]*\)$/,
  /^SCHEMA - (?:public|drizzle)$/,
  /^(?:COMMENT|ACL) - SCHEMA public$/,
  /^SEQUENCE (?:SET |OWNED BY )?drizzle __drizzle_migrations_id_seq$/,
];
const HANGS_ON_TABLE =
  /^(?:TABLE|TABLE DATA|DEFAULT|CONSTRAINT|FK CONSTRAINT|TRIGGER) (public|drizzle) (\S+)/;

/** The entries of a dump’s list of contents, without numbers and owner. */
const entriesOf = (list) =>
  list
    .split('\n')
    .filter((line) => /^\d+;/.test(line))
    .map((line) => line.replace(/^\d+; \d+ \d+ /, '').replace(/ \S*$/, ''));

/** @throws with the name of what no backup of ours holds */
export function requireOurs(list) {
  for (const entry of entriesOf(list)) {
    const [, schema, table] = HANGS_ON_TABLE.exec(entry) ?? [];
    const known = KNOWN_ENTRIES.some((each) => each.test(entry));
    if (known && (table === undefined || OURS.has(`${schema}.${table}`))) continue;
    throw new Error(
      `The file holds something that no backup of Gangway’s does: ${entry.slice(0, 200)}. Nothing was changed.`,
    );
  }
}

const COPY = /^COPY (public|drizzle)\.(\w+) \(([\w", ]+)\) FROM stdin;$/;
/** Lines that pg_restore writes around the rows. They are left out, not run. */
const AROUND = [
  /^$/,
  /^--/,
  /^SET \w+ = [\w']+;$/,
  /^SELECT pg_catalog\.set_config\('search_path', '', false\);$/,
  /^SELECT pg_catalog\.setval\('drizzle\.__drizzle_migrations_id_seq', \d+, (?:true|false)\);$/,
  /^\\(?:un)?restrict \w+$/,
];

const NEW_LINE = Buffer.from('\n');
const END_OF_ROWS = Buffer.from('\\.');

/** Lines as PostgreSQL ends them, and nothing else: a document may hold other line ends. */
async function* linesOf(path) {
  let rest = Buffer.alloc(0);
  for await (const chunk of createReadStream(path)) {
    const bytes = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
    let from = 0;
    for (let end; (end = bytes.indexOf(10, from)) >= 0; from = end + 1) {
      yield bytes.subarray(from, end);
    }
    rest = bytes.subarray(from);
  }
  if (rest.length > 0) yield rest;
}

/**
 * Takes the rows out of what pg_restore wrote, table by table: nothing else of it is ever run.
 * @returns the columns of each table, and where its rows stand
 * @throws with the line that does not belong there
 */
export async function rowsOf(script, folder) {
  const found = new Map();
  let open = null;
  for await (const bytes of linesOf(script)) {
    if (open) {
      if (bytes.equals(END_OF_ROWS)) {
        closeSync(open);
        open = null;
      } else writeSync(open, Buffer.concat([bytes, NEW_LINE]));
      continue;
    }
    const line = bytes.toString('utf8');
    const copy = COPY.exec(line);
    if (copy) {
      const name = `${copy[1]}.${copy[2]}`;
      if (!OURS.has(name) || found.has(name)) {
        throw new Error(`The file holds rows for ${name}. Nothing was changed.`);
      }
      const rows = join(folder, `${name}.rows`);
      open = openSync(rows, 'wx', 0o600);
      found.set(name, { columns: copy[3].split(', '), rows });
    } else if (!AROUND.some((each) => each.test(line))) {
      throw new Error(
        `The file holds something else than rows: “${line.slice(0, 100)}”. Nothing was changed.`,
      );
    }
  }
  if (open) throw new Error('The file ends in the middle of its rows. Nothing was changed.');
  return found;
}
