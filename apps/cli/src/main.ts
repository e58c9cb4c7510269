import { readFile, stat } from 'node:fs/promises';
import {
  evaluate,
  kitJsonSchema,
  LARGEST_FILE_BYTES,
  parseStationText,
  stationJsonSchema,
  tooLarge,
  type Problem,
  type Station,
} from '@gangway/station';
import { cardAsked } from './asked.js';

export interface Streams {
  readonly stdin: AsyncIterable<Buffer | string>;
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

const USAGE = `Use: gangway evaluate FILE...   one JSON report a line; - reads standard input
     gangway card FILE... -o card.pdf [--paper A6]
                                the stations’ cards as one PDF: A6, A5, A4 or Letter
     gangway schema             the JSON Schema of the station file
     gangway schema kit         the JSON Schema of the kit file
`;

type Read = { ok: true; text: string } | { ok: false; problem: Problem };

const problem = (message: string): Read => ({ ok: false, problem: { pointer: '', message } });

async function readStdin(stdin: Streams['stdin']): Promise<Read> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of stdin) {
    const buffer = Buffer.from(chunk);
    bytes += buffer.length;
    if (bytes <= LARGEST_FILE_BYTES) chunks.push(buffer);
  }
  const large = bytes > LARGEST_FILE_BYTES ? tooLarge(bytes) : null;
  if (large && !large.ok) return { ok: false, problem: large.problems[0]! };
  return { ok: true, text: Buffer.concat(chunks).toString('utf8') };
}

async function readStation(file: string, stdin: Streams['stdin']): Promise<Read> {
  if (file === '-') return readStdin(stdin);
  try {
    const { size } = await stat(file);
    const large = size > LARGEST_FILE_BYTES ? tooLarge(size) : null;
    if (large && !large.ok) return { ok: false, problem: large.problems[0]! };
    return { ok: true, text: await readFile(file, 'utf8') };
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOENT') return problem('there is no such file');
    if (code === 'EISDIR') return problem('is a folder; give a station file');
    return problem(`cannot be read (${code ?? String(error)})`);
  }
}

/** Runs one command. @returns the exit code: 0 when every file was read, 2 otherwise */
export async function run(args: readonly string[], streams: Streams): Promise<number> {
  const [command, ...files] = args;
  if (command === 'schema' && (files.length === 0 || (files.length === 1 && files[0] === 'kit'))) {
    const schema = files.length === 0 ? stationJsonSchema() : kitJsonSchema();
    streams.out(`${JSON.stringify(schema, null, 2)}\n`);
    return 0;
  }
  if (command === '--help' || command === '-h' || command === 'help') {
    streams.out(USAGE);
    return 0;
  }
  if (command === 'card') return card(files, streams);
  if (command !== 'evaluate' || files.length === 0) {
    streams.err(USAGE);
    return 2;
  }
  const { code } = await eachStation(files, streams, (station) =>
    streams.out(`${JSON.stringify(evaluate(station))}\n`),
  );
  return code;
}

/** Reads stations one by one, telling what is wrong with those that are none. */
async function eachStation(
  files: readonly string[],
  streams: Streams,
  take: (station: Station) => void,
): Promise<{ code: number }> {
  let code = 0;
  for (const file of files) {
    const read = await readStation(file, streams.stdin);
    const parsed = read.ok
      ? parseStationText(read.text)
      : { ok: false as const, problems: [read.problem] };
    if (parsed.ok) {
      take(parsed.value);
      continue;
    }
    code = 2;
    for (const { pointer, message } of parsed.problems) {
      streams.err(`${file}: ${pointer || '/'}: ${message}\n`);
    }
  }
  return { code };
}

/** Cards of all files, or of none: a PDF that lacks a station is not noticed on the road. */
async function card(args: readonly string[], streams: Streams): Promise<number> {
  const asked = cardAsked(args);
  if ('wrong' in asked) {
    streams.err(`card: ${asked.wrong}\n${USAGE}`);
    return 2;
  }
  const stations: Station[] = [];
  const { code } = await eachStation(asked.files, streams, (station) => stations.push(station));
  if (code !== 0) return code;
  try {
    // Type and paper are read only by those who ask for them.
    const { writeCards } = await import('./write-cards.js');
    const missing = await writeCards(stations, asked);
    if (missing !== '')
      streams.err(`${asked.out}: the typeface has no ${[...missing].join(' ')}\n`);
    return 0;
  } catch (error) {
    const { code: why } = error as NodeJS.ErrnoException;
    streams.err(`${asked.out}: cannot be written (${why ?? String(error)})\n`);
    return 2;
  }
}
