import { readFile, stat } from 'node:fs/promises';
import {
  evaluate,
  kitJsonSchema,
  LARGEST_FILE_BYTES,
  parseStationText,
  stationJsonSchema,
  tooLarge,
  type Problem,
} from '@gangway/station';

export interface Streams {
  readonly stdin: AsyncIterable<Buffer | string>;
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

const USAGE = `Use: gangway evaluate FILE...   one JSON report a line; - reads standard input
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
  if (command !== 'evaluate' || files.length === 0) {
    streams.err(USAGE);
    return 2;
  }
  let code = 0;
  for (const file of files) {
    const read = await readStation(file, streams.stdin);
    const parsed = read.ok
      ? parseStationText(read.text)
      : { ok: false as const, problems: [read.problem] };
    if (parsed.ok) {
      streams.out(`${JSON.stringify(evaluate(parsed.value))}\n`);
      continue;
    }
    code = 2;
    for (const { pointer, message } of parsed.problems) {
      streams.err(`${file}: ${pointer || '/'}: ${message}\n`);
    }
  }
  return code;
}
