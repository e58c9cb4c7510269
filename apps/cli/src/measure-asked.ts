import type { Area } from '@gangway/frames';

/** What `gangway measure` is asked for, or what is wrong with how it was asked. */
export type MeasureAsked =
  | { readonly what: 'edge'; readonly file: string; readonly area: Area | null }
  | {
      readonly what: 'flat';
      readonly station: string;
      readonly files: readonly string[];
      /** Movements of each file, in their order; empty where the station's own hold for all. */
      readonly at: readonly Movement[];
      readonly fNumbers: readonly number[];
    }
  | {
      readonly what: 'series';
      readonly files: readonly string[];
      readonly fNumbers: readonly number[];
      /** How far each was focused beyond the first, mm behind the lens. */
      readonly focusMm: readonly number[];
      readonly widthMm: number | null;
    }
  | { readonly wrong: string };

export interface Movement {
  readonly riseMm: number;
  readonly shiftMm: number;
}

const wrong = (message: string): { readonly wrong: string } => ({ wrong: message });

interface Split {
  readonly plain: string[];
  readonly options: Map<string, string[]>;
}

/** Files, and options as `--name=value` or `--name value`. */
function split(args: readonly string[], known: readonly string[]): Split | { wrong: string } {
  const plain: string[] = [];
  const options = new Map<string, string[]>();
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (!arg.startsWith('--')) {
      plain.push(arg);
      continue;
    }
    const [name = '', ...rest] = arg.split('=');
    if (!known.includes(name))
      return wrong(`${name} is no option here; there are ${known.join(', ')}`);
    const value = rest.length > 0 ? rest.join('=') : args[++i];
    if (value === undefined || value === '') return wrong(`${name} needs a value after it`);
    options.set(name, [...(options.get(name) ?? []), value]);
  }
  return { plain, options };
}

/** Numbers separated by commas; null where one is none. */
function numbers(text: string, count?: number): number[] | null {
  const found = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)));
  const right = found.every(Number.isFinite) && (count === undefined || found.length === count);
  return right ? found : null;
}

/** One for all or one for each. */
function many(
  name: string,
  given: readonly string[],
  files: number,
  least: number,
): number[] | { wrong: string } {
  const found = given.flatMap((text) => numbers(text.replace(/^f\//, '')) ?? [NaN]);
  if (found.some((each) => !(each >= least))) return wrong(`${name} must be a number, not ${given.join(' ')}`); // prettier-ignore
  if (found.length > 1 && found.length !== files) return wrong(`${name} is given ${found.length} times for ${files} files: once for all or once for each`); // prettier-ignore
  return found;
}

const EDGE = 'gangway measure edge FILE [--area=x,y,w,h]';

function edgeAsked(args: readonly string[]): MeasureAsked {
  const parts = split(args, ['--area']);
  if ('wrong' in parts) return parts;
  const [file, ...more] = parts.plain;
  if (file === undefined || more.length > 0) return wrong(`give one picture: ${EDGE}`);
  const text = parts.options.get('--area')?.at(-1);
  if (text === undefined) return { what: 'edge', file, area: null };
  const found = numbers(text, 4);
  if (!found || found.some((each) => !Number.isInteger(each) || each < 0)) return wrong(`--area must be four whole numbers, x,y,width,height from the top left, not ${text}`); // prettier-ignore
  const [x, y, width, height] = found as [number, number, number, number];
  return { what: 'edge', file, area: { x, y, width, height } };
}

function flatAsked(args: readonly string[]): MeasureAsked {
  const parts = split(args, ['--at', '--f']);
  if ('wrong' in parts) return parts;
  const [station, ...files] = parts.plain;
  if (station === undefined || files.length === 0) return wrong('give a station file and the pictures of the white'); // prettier-ignore
  const given = parts.options.get('--at') ?? [];
  const at = given.map((text) => numbers(text, 2));
  if (at.some((each) => each === null)) return wrong(`--at must be RISE,SHIFT in mm, not ${given.join(' ')}`); // prettier-ignore
  if (at.length > 0 && at.length !== files.length) return wrong(`--at is given ${at.length} times for ${files.length} files: once for each`); // prettier-ignore
  const fNumbers = many('--f', parts.options.get('--f') ?? [], files.length, 0.5);
  if ('wrong' in fNumbers) return fNumbers;
  return { what: 'flat', station, files, at: at.map((each) => ({ riseMm: each![0]!, shiftMm: each![1]! })), fNumbers }; // prettier-ignore
}

function seriesAsked(args: readonly string[]): MeasureAsked {
  const parts = split(args, ['--f', '--focus', '--width']);
  if ('wrong' in parts) return parts;
  const files = parts.plain;
  if (files.length === 0) return wrong('give the pictures of the series');
  const fNumbers = many('--f', parts.options.get('--f') ?? [], files.length, 0.5);
  if ('wrong' in fNumbers) return fNumbers;
  const focusMm = many('--focus', parts.options.get('--focus') ?? [], files.length, -1000);
  if ('wrong' in focusMm) return focusMm;
  const width = parts.options.get('--width')?.at(-1);
  const widthMm = width === undefined ? null : Number(width);
  if (widthMm !== null && !(widthMm > 0)) return wrong(`--width must be the width of the back in mm, not ${width}`); // prettier-ignore
  if (new Set(focusMm).size > 1 && widthMm === null) return wrong('with --focus the width of the back is needed, too: --width=36'); // prettier-ignore
  return { what: 'series', files, fNumbers, focusMm, widthMm };
}

const KINDS = { edge: edgeAsked, flat: flatAsked, series: seriesAsked } as const;

/** `edge | flat | series`, and what belongs to each, in any order. */
export function measureAsked([kind = '', ...rest]: readonly string[]): MeasureAsked {
  if (!Object.hasOwn(KINDS, kind)) return wrong(`say what to measure: ${Object.keys(KINDS).join(', ')}`); // prettier-ignore
  return KINDS[kind as keyof typeof KINDS](rest);
}
