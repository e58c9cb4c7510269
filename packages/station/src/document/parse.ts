import type { z } from 'zod';
import { migrate, withOrigins } from './migrations.js';
import { stationSchema } from './schema.js';
import { FORMAT, VERSION, type Station } from './station.js';
import { shown, versionFault } from './fields.js';
import { isWellFormed } from './text.js';

/** One thing wrong with a document: where (a JSON pointer, RFC 6901) and a sentence. */
export interface Problem {
  readonly pointer: string;
  readonly message: string;
}

export type Result<T> =
  | { ok: true; value: T }
  | {
      ok: false;
      problems: Problem[];
      /** The document, where it is one but for values past what is allowed. */
      readable?: T;
    };

/** Largest station file read, in bytes. A real one holds a few thousand. */
export const LARGEST_FILE_BYTES = 2_000_000;

const fail = (pointer: string, message: string): Result<never> => ({
  ok: false,
  problems: [{ pointer, message }],
});

export const pointerTo = (path: readonly PropertyKey[]): string =>
  path.map((key) => `/${String(key).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

/** Stations that were held to every rule; what is still the very same object was sound then and is now. */
export const SOUND = new WeakSet<object>();

/** Reads a document of any known version into the present one. Unknown fields are kept. */
export function parseStation(document: unknown): Result<Station> {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    return fail('', `must be a JSON object with "format": "${FORMAT}", not ${shown(document)}`);
  }
  const { format, version } = document as Record<string, unknown>;
  if (format !== FORMAT) {
    return fail('/format', `must be "${FORMAT}" for a Gangway station, not ${shown(format)}`);
  }
  const migrated = migrate(document as Record<string, unknown>);
  if (!migrated) {
    return fail('/version', versionFault(version, VERSION));
  }
  const present = withOrigins(migrated);
  const read = checked<Station>(stationSchema, present);
  if (read.ok) SOUND.add(read.value);
  return read;
}

/**
 * Holds a document to a schema. What is given is what comes back: nothing is copied, so that what
 * an edit leaves alone stays the very same object.
 */
export function checked<T>(schema: z.ZodType, document: unknown): Result<T> {
  const found = unstorable(document);
  if (found) return { ok: false, problems: [found] };
  const parsed = schema.safeParse(document);
  return parsed.success ? { ok: true, value: document as T } : refused<T>(document, parsed.error);
}

/** {@link parseStation} of a file's text, with its own sentences for what is no JSON at all. */
export function parseStationText(text: string): Result<Station> {
  if (text.length > LARGEST_FILE_BYTES) return tooLarge(text.length);
  if (text.trim() === '') return fail('', 'the file is empty; a station file is a JSON object');
  let document: unknown;
  try {
    document = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return fail('', 'is not JSON; a station file is one JSON object in UTF-8');
  }
  return parseStation(document);
}

export function tooLarge(bytes: number): Result<never> {
  const megabytes = (n: number): string => (n / 1e6).toFixed(n < 1e7 ? 1 : 0);
  return fail(
    '',
    `is ${megabytes(bytes)} MB; a station file is at most ${megabytes(LARGEST_FILE_BYTES)} MB`,
  );
}

/** A document with all its problems, each where it is. */
export function refused<T>(document: unknown, error: z.ZodError): Result<T> {
  const issues = error.issues.flatMap((issue) => flatten(issue, []));
  const problems = issues.map(({ pointer, message }) => ({ pointer, message }));
  return issues.every(
    ({ code, pointer }) => WITHIN.has(code) && !(isCount(pointer) && code !== 'custom'),
  )
    ? { ok: false, problems, readable: document as T }
    : { ok: false, problems };
}

/** Codes of issues with a value that is of the right kind, and past what is allowed. */
const WITHIN = new Set<string | undefined>(['too_small', 'too_big', 'custom']);

/**
 * How many of something there are. Nothing was ever stored with more than may be, and to go on with a
 * billion of them is no kindness to anybody.
 */
const isCount = (pointer: string): boolean => /\/(?:columns|rows|frames|turns)$/.test(pointer);

/** What is stored already: read though a rule that came later forbids it, its faults named. */
export interface Kept<T> {
  /** Null when it cannot be read at all. */
  readonly value: T | null;
  readonly faults: readonly Problem[];
}

export function readKept<T>(parse: (document: unknown) => Result<T>, document: unknown): Kept<T> {
  const read = parse(document);
  return read.ok
    ? { value: read.value, faults: [] }
    : { value: read.readable ?? null, faults: read.problems };
}

/**
 * A changed document. What changed must meet every rule; a fault that was there before, and has not
 * changed, is accepted.
 */
export function parseEdited<T>(
  parse: (document: unknown) => Result<T>,
  document: unknown,
  before: unknown,
): Result<T> {
  const read = parse(document);
  if (read.ok || read.readable === undefined) return read;
  const known = parse(before);
  if (known.ok) return read;
  const keyOf = ({ pointer, message }: Problem): string => `${pointer} ${message}`;
  const old = new Set(known.problems.map(keyOf));
  const problems = read.problems.filter((problem) => !old.has(keyOf(problem)));
  return problems.length === 0
    ? { ok: true, value: read.readable }
    : { ok: false, problems, readable: read.readable };
}

const DEEPEST = 40;

/**
 * Anything JSON cannot hold: numbers and text outside it, nesting too deep. Unknown fields are
 * checked too.
 */
export function unstorable(document: unknown): Problem | null {
  const found = findUnstorable(document, 0);
  return found && { pointer: pointerTo(found.path.reverse()), message: found.message };
}

/** Every save passes through here: the way to a value is told only when it is wrong. */
function findUnstorable(value: unknown, depth: number): { path: string[]; message: string } | null {
  const message = depth > DEEPEST ? `is nested deeper than ${DEEPEST} levels` : unwritable(value);
  if (message !== null) return { path: [], message };
  if (typeof value !== 'object' || value === null) return null;
  for (const key in value) {
    if (!Object.hasOwn(value, key)) continue;
    const wrong = unwritable(key);
    if (wrong !== null) return { path: [], message: `${wrong}: the name of a field in it` };
    const found = findUnstorable((value as Record<string, unknown>)[key], depth + 1);
    if (found) return { ...found, path: [...found.path, key] };
  }
  return null;
}

/** Why a number or text cannot be kept, or null. */
function unwritable(value: unknown): string | null {
  if (typeof value === 'number') {
    return Number.isFinite(value) ? null : 'is too large to be a number; write one below 1e308';
  }
  if (typeof value !== 'string') return null;
  if (value.includes('\u0000')) return 'must not hold control characters';
  return isWellFormed(value) ? null : 'holds half of a character; type it again';
}

interface Issue extends Problem {
  readonly code: string | undefined;
}

/** A union's issue says only that nothing matched; show the branch that came nearest. */
function flatten(issue: z.core.$ZodIssue, above: PropertyKey[]): Issue[] {
  const path = [...above, ...issue.path];
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) {
    return [{ pointer: pointerTo(path), message: issue.message, code: issue.code }];
  }
  const missing = (branch: z.core.$ZodIssue[]): number =>
    branch.filter((inner) => inner.message.startsWith('is missing')).length;
  const near = issue.errors.filter((branch) => missing(branch) === 0);
  if (near.length > 0) return near[0]!.flatMap((inner) => flatten(inner, path));
  const partly = issue.errors.filter((branch) => missing(branch) < 2 && branch.length === 1);
  const names = partly.flatMap((branch) => branch.map((inner) => String(inner.path[0])));
  return [
    { pointer: pointerTo(path), message: `must hold one of ${names.join(', ')}`, code: undefined },
  ];
}
