import {
  evaluate,
  jobJsonSchema,
  kitJsonSchema,
  stationJsonSchema,
  type Station,
} from '@gangway/station';
import { cardAsked, xmpAsked } from './asked.js';
import { checkLines } from './check.js';
import { measureAsked } from './measure-asked.js';
import { readFiles, type Holding } from './read-files.js';
import type { Streams } from './streams.js';

export type { Streams };

const USAGE = `Use: gangway evaluate FILE...   one JSON report a line; - reads standard input
     gangway check FILE...      a verdict a line for each station of station and job files:
                                exit 0 all good, 1 something fails, 2 not readable
     gangway card FILE... -o card.pdf [--paper A6]
                                the cards of station and job files as one PDF: A6, A5, A4 or Letter
     gangway xmp JOB -o DIR [--files DIR]
                                a sidecar for each exposure with a file name; sidecars that lie in
                                the folder of --files are merged
     gangway prove STATION FRAME...
                                where the frames of a mosaic really lay, as one line of JSON
     gangway measure edge FILE [--area=x,y,w,h]
     gangway measure flat STATION FILE... [--at=RISE,SHIFT]... [--f=N]...
     gangway measure series FILE... [--f=N]... [--focus=MM]... [--width=MM]
                                a lens from pictures, as one line of JSON; --at, --f and --focus
                                once for each file in their order, --f and --focus also once for all
     gangway schema [station|kit|job]
                                the JSON Schema of a file
`;

const SCHEMAS = { station: stationJsonSchema, kit: kitJsonSchema, job: jobJsonSchema } as const;

type Command = (args: readonly string[], streams: Streams) => Promise<number>;

const usage = ({ err }: Streams, message = ''): number => {
  err(`${message}${USAGE}`);
  return 2;
};

const stationsOf = (found: readonly Holding[]): Station[] =>
  found.flatMap((each) => (each.kind === 'station' ? [each.station] : each.job.stations.filter(({ archived }) => !archived).map(({ document }) => document))); // prettier-ignore

const COMMANDS: Readonly<Record<string, Command>> = {
  evaluate: async (files, streams) => {
    if (files.length === 0) return usage(streams);
    return readFiles(files, streams, ['station'], (found) => {
      if (found.kind === 'station') streams.out(`${JSON.stringify(evaluate(found.station))}\n`);
    });
  },

  schema: async (args, streams) => {
    const [name = 'station', ...more] = args;
    if (!Object.hasOwn(SCHEMAS, name) || more.length > 0) return usage(streams);
    streams.out(`${JSON.stringify(SCHEMAS[name as keyof typeof SCHEMAS](), null, 2)}\n`);
    return 0;
  },

  check: async (files, streams) => {
    if (files.length === 0) return usage(streams);
    let fails = false;
    const code = await readFiles(files, streams, ['station', 'job'], (found) => {
      for (const { text, good } of checkLines(found)) {
        streams.out(`${text}\n`);
        if (!good) fails = true;
      }
    });
    return code !== 0 ? code : fails ? 1 : 0;
  },

  /** Cards of all files, or of none: a PDF that lacks a station is not noticed on the road. */
  card: async (args, streams) => {
    const asked = cardAsked(args);
    if ('wrong' in asked) return usage(streams, `card: ${asked.wrong}\n`);
    const found: Holding[] = [];
    const code = await readFiles(asked.files, streams, ['station', 'job'], (each) => found.push(each)); // prettier-ignore
    if (code !== 0) return code;
    const stations = stationsOf(found);
    if (stations.length === 0) {
      streams.err('card: there are no stations in these files\n');
      return 2;
    }
    return written(asked.out, streams, async () => {
      // Type and paper are read only by those who ask for them.
      const { writeCards } = await import('./write-cards.js');
      const missing = await writeCards(stations, asked);
      if (missing !== '') streams.err(`${asked.out}: the typeface has no ${[...missing].join(' ')}\n`); // prettier-ignore
      return 0;
    });
  },

  prove: async (args, streams) => {
    const [file, ...frames] = args;
    const option = args.find((arg) => arg.startsWith('-') && arg !== '-');
    if (option !== undefined) return usage(streams, `prove: ${option} is no option of prove\n`);
    if (file === undefined || frames.length === 0) {
      return usage(streams, 'prove: give a station file and the frames of its mosaic\n');
    }
    const station = await oneStation(file, streams);
    if (!station) return 2;
    const { proveFrames } = await import('./prove-frames.js');
    return proveFrames(station, frames, streams);
  },

  measure: async (args, streams) => {
    const asked = measureAsked(args);
    if ('wrong' in asked) return usage(streams, `measure: ${asked.wrong}\n`);
    const station = asked.what === 'flat' ? await oneStation(asked.station, streams) : null;
    if (asked.what === 'flat' && !station) return 2;
    const { measure } = await import('./measure.js');
    return measure(asked, station, streams);
  },

  xmp: async (args, streams) => {
    const asked = xmpAsked(args);
    if ('wrong' in asked) return usage(streams, `xmp: ${asked.wrong}\n`);
    const found: Holding[] = [];
    const code = await readFiles([asked.job], streams, ['job'], (each) => found.push(each));
    const [first] = found;
    if (code !== 0 || first?.kind !== 'job') return 2;
    return written(asked.out, streams, async () => {
      const { writeSidecars } = await import('./write-sidecars.js');
      return writeSidecars(first.job, asked, streams);
    });
  },
};

/** One station, or null where it cannot be read; what is wrong is told. */
async function oneStation(file: string, streams: Streams): Promise<Station | null> {
  const found: Holding[] = [];
  const code = await readFiles([file], streams, ['station'], (each) => found.push(each));
  const [first] = found;
  return code === 0 && first?.kind === 'station' ? first.station : null;
}

/** Runs what writes files, and says so where it cannot. */
async function written(
  out: string,
  streams: Streams,
  work: () => Promise<number>,
): Promise<number> {
  try {
    return await work();
  } catch (error) {
    const { code, path } = error as NodeJS.ErrnoException;
    if (code === undefined) throw error;
    streams.err(`${path ?? out}: cannot be written (${code})\n`);
    return 2;
  }
}

/** Runs one command. @returns the exit code: 0 when all went well, 2 when a file cannot be read or written */
export async function run(args: readonly string[], streams: Streams): Promise<number> {
  const [name = '', ...rest] = args;
  if (name === '--help' || name === '-h' || name === 'help') {
    streams.out(USAGE);
    return 0;
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  return command ? command(rest, streams) : usage(streams);
}
